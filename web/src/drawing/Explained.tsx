import { useQuery } from "@tanstack/react-query";
import { Fragment, useMemo } from "react";
import * as queries from "../api/queries";
import { Words } from "./Words";

const quoted = (word: string) => word.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");

/** Text in which words of the trade say what they mean under the pointer, each where it is met first. */
export function Explained({ children }: { children: string }) {
  const terms = useQuery(queries.terms).data?.terms;
  const parts = useMemo(() => {
    if (!terms) return [];
    const means = new Map(terms.map((term) => [term.word.toLowerCase(), term.means]));
    // The longest first: a bust point is no bust.
    const words = [...means.keys()].sort((a, b) => b.length - a.length).map(quoted);
    const split = new RegExp(`(?<![\\p{L}-])(${words.join("|")})(?![\\p{L}-])`, "giu");
    const met = new Set<string>();
    return children.split(split).map((text) => {
      const word = text.toLowerCase();
      const isFirst = means.has(word) && !met.has(word);
      met.add(word);
      return { text, means: isFirst ? means.get(word) : undefined };
    });
  }, [terms, children]);
  if (parts.length === 0) return <Words>{children}</Words>;
  return parts.map(({ text, means }, index) =>
    means ? (
      <abbr key={index} title={`${text}: ${means}`}>
        {text}
      </abbr>
    ) : (
      <Fragment key={index}>
        <Words>{text}</Words>
      </Fragment>
    ),
  );
}
