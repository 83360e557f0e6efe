import { Fragment } from "react";

/** Text in which fractions of an inch stand as true fractions. */
export function Words({ children }: { children: string }) {
  return children.split(/(\d+\/\d+)/).map((part, index) =>
    index % 2 === 1 ? (
      <span key={index} className="fraction">
        {part}
      </span>
    ) : (
      <Fragment key={index}>{part}</Fragment>
    ),
  );
}
