import { Button, type ButtonProps } from "antd";
import { useRef } from "react";

interface Props extends Omit<ButtonProps, "onClick"> {
  /** What is chosen. */
  label: string;
  accept: string;
  multiple?: boolean;
  onFile: (file: File) => void;
}

/** A button that asks for a file, or several. The same file may be chosen twice. */
export function ChooseFile({ label, accept, multiple = false, onFile, ...button }: Props) {
  const chooser = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button
        {...button}
        onClick={() => {
          chooser.current?.click();
        }}
      />
      <input
        ref={chooser}
        type="file"
        className="unseen"
        aria-label={label}
        tabIndex={-1}
        multiple={multiple}
        accept={accept}
        onChange={(event) => {
          for (const file of event.target.files ?? []) onFile(file);
          event.target.value = "";
        }}
      />
    </>
  );
}
