import { Skeleton } from "antd";
import { useState } from "react";
import { useParams } from "react-router";
import { problemOf, type AskedNow } from "../api/client";
import { Trouble } from "../shell/Trouble";
import { askedIn, LargeView } from "./LargeView";
import { useGarment, type Opened } from "../document/useGarment";
import { useTryOn, type OneTryOn } from "../document/useTryOn";

/** The large view on a second screen of one's own. */
export default function LargePage() {
  const { garment = "", tryOn = "" } = useParams();
  const opened = useGarment(garment, "large");
  if (opened.isPending) return <Skeleton active paragraph={{ rows: 8 }} />;
  if (opened.isError)
    return <Trouble problem={problemOf(opened.error)} retry={() => void opened.refetch()} />;
  const one = opened.data.tryOns.find((t) => t.id === tryOn && t.version > 0);
  if (!one) {
    const detail = "It appears here as soon as its first entry is stored. Open this view again then.";
    return <Trouble problem={{ type: "empty", title: "Nothing to follow yet", status: 404, detail }} />;
  }
  return <Large key={opened.dataUpdatedAt} opened={opened.data} one={one} />;
}

function Large({ opened, one }: { opened: Opened; one: OneTryOn }) {
  const [asked, setAsked] = useState<AskedNow | null>(null);
  const kept = useTryOn(one, {
    undoable: false,
    onEvent: (event) => {
      const now = askedIn(event, one.id);
      if (now) setAsked(now);
    },
  });
  return <LargeView id={opened.state.id} garment={opened.state.document} tryOn={kept.value} asked={asked} />;
}
