import { Skeleton } from "antd";
import { useMemo, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { api, problemOf } from "../api/client";
import { Trouble } from "../shell/Trouble";
import { FittingMode } from "./FittingMode";
import type { FromTape } from "./useFromTape";
import { withFacts } from "../document/changes";
import { newestOf, useGarment, type Opened } from "../document/useGarment";
import { today } from "../document/today";
import { useTryOn, type OneTryOn } from "../document/useTryOn";
import styles from "./fitting.module.css";

/** The fitting mode of one's own try-on. */
export default function FittingPage() {
  const { garment = "", tryOn = "" } = useParams();
  const opened = useGarment(garment, "fitting");
  if (opened.isPending) {
    return (
      <main className={styles["fitting"]}>
        <Skeleton active paragraph={{ rows: 8 }} />
      </main>
    );
  }
  if (opened.isError)
    return <Trouble problem={problemOf(opened.error)} retry={() => void opened.refetch()} />;
  const { tryOns } = opened.data;
  const index = tryOns.findIndex((t) => t.id === tryOn);
  const one = tryOns[index] ?? newUnder(garment, newestOf(opened.data.state), tryOn);
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
function newUnder(garment: string, state: string, id: string): OneTryOn {
  return { id, garment, initial: { id, state, date: today() }, version: 0, draft: null };
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
  const { facts } = opened;
  const garment = useMemo(
    () => (facts ? withFacts(state.document, facts.value) : state.document),
    [state.document, facts],
  );
  return (
    <FittingMode
      id={state.id}
      garment={garment}
      before={before && before.version > 0 ? before.initial : undefined}
      kept={kept}
      fromTape={fromTape}
      onAsked={(asked) => {
        if (!isStored) return;
        const params = { path: { try_on: one.id } };
        api.POST("/api/v1/try-ons/{try_on}/asked", { params, body: asked }).catch(() => undefined);
      }}
      onClose={() => void navigate(`/garments/${state.id}/try-on?try-on=${one.id}`)}
    />
  );
}
