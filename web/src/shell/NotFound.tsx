import { Trouble } from "./Trouble";

export default function NotFound() {
  const problem = {
    type: "not-found",
    title: "Nothing is here",
    status: 404,
    detail: "The address leads nowhere; your garments are on the rail.",
  };
  return <Trouble problem={problem} />;
}
