import { Button, type ButtonProps } from "antd";
import { useHref, useLinkClickHandler } from "react-router";

type Props = Omit<ButtonProps, "href" | "onClick"> & { to: string };

/** A link to another place of Vemble that looks like a button: one element, one role. */
export function LinkButton({ to, target, ...rest }: Props) {
  const href = useHref(to);
  const follow = useLinkClickHandler(to, target ? { target } : {});
  return (
    <Button
      {...rest}
      {...(target ? { target } : {})}
      {...(rest.disabled ? {} : { href })}
      onClick={(event) => {
        follow(event as React.MouseEvent<HTMLAnchorElement>);
      }}
    />
  );
}
