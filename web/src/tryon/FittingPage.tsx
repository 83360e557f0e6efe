import { Skeleton } from "antd";
import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import { api, problemOf } from "../api/client";
import { Trouble } from "../shell/Trouble";
import { FittingMode } from "./FittingMode";
import type { FromTape } from "./useFromTape";
import { useGarment, type Opened } from "./useGarment";
import { useTryOn, type OneTryOn } from "./useTryOn";
import "./fitting.css";

/** The fitting mode of one's own try-on. */
export default function FittingPage() {
  const { garment = "", tryOn = "" } = useParams();
  const opened = useGarment(garment, "fitting");
  if (opened.isPending) {
    return (
      <main className="fitting">
        <Skeleton active paragraph={{ rows: 8 }} />
      </main>
    );
  }
  if (opened.isError)
    return <Trouble problem={problemOf(opened.error)} retry={() => void opened.refetch()} />;
  const { tryOns } = opened.data;
  const index = tryOns.findIndex((t) => t.id === tryOn);
  const one = tryOns[index] ?? newUnder(garment, tryOn);
  return (
    <Fitting
      key={opened.dataUpdatedAt}
      opened={opened.data}
      one={one}
      before={tryOns[(index < 0 ? tryOns.length : index) - 1]}
    />
  );
}

/** A try-on whose id was made on the page before, and which is stored with its first entry. */
function newUnder(garment: string, id: string): OneTryOn {
  const date = new Date().toISOString().slice(0, 10);
  return { id, garment, initial: { id, date, alterations: [] }, version: 0, draft: null };
}

interface FittingProps {
  opened: Opened;
  one: OneTryOn;
  before: OneTryOn | undefined;
}

function Fitting({ opened, one, before }: FittingProps) {
  const navigate = useNavigate();
  const { state } = opened;
  const [fromTape, setFromTape] = useState<FromTape | null>(null);
  const kept = useTryOn(one, {
    atOnce: true,
    onEvent: (event) => {
      const reading = "tape" in event ? event.tape.reading : null;
      if (reading) setFromTape((last) => ({ reading, number: (last?.number ?? 0) + 1 }));
    },
  });
  const isStored = kept.version > 0;
  return (
    <FittingMode
      id={state.id}
      garment={opened.facts?.value ?? state.document.garment}
      before={before && before.version > 0 ? before.initial : undefined}
      kept={kept}
      fromTape={fromTape}
      onAsked={(step, typed) => {
        if (!isStored) return;
        const params = { path: { try_on: one.id } };
        api.POST("/api/v1/try-ons/{try_on}/asked", { params, body: { step, typed } }).catch(() => undefined);
      }}
      onClose={() => void navigate(`/garments/${state.id}/try-on?try-on=${one.id}`)}
    />
  );
}
