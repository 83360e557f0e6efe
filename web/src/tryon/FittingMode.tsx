import { useEffect, useState } from "react";
import type { AskedNow, Document, TryOn } from "../api/client";
import { stateOf } from "../document/changes";
import { useStand } from "../document/useDerived";
import type { Kept } from "../document/useKept";
import { useSettings } from "../settings";
import { Conditions } from "./Conditions";
import { Foot, Frame } from "./FittingFrame";
import { HemStep } from "./HemStep";
import { MovingStep } from "./MovingStep";
import { Observations } from "./Observations";
import { PinStep } from "./PinStep";
import { useAsking } from "../document/useAsking";
import type { FromTape } from "./useFromTape";
import styles from "./fitting.module.css";

interface Props {
  id: string;
  garment: Document;
  before: TryOn | undefined;
  kept: Kept<TryOn>;
  /** The last reading of the digital tape. */
  fromTape: FromTape | null;
  /** Tells second screens what is asked and typed. */
  onAsked: (asked: AskedNow) => void;
  onClose: () => void;
}

/** Keeps the screen awake while it is shown, where the browser can. */
function useWakeLock() {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    const keep = () => {
      if (document.visibilityState !== "visible" || !("wakeLock" in navigator)) return;
      navigator.wakeLock.request("screen").then(
        (got) => (lock = got),
        () => undefined,
      );
    };
    keep();
    document.addEventListener("visibilitychange", keep);
    return () => {
      document.removeEventListener("visibilitychange", keep);
      void lock?.release();
    };
  }, []);
}

/** The try-on on the whole screen: one question, one pad, left and right, next. */
export function FittingMode({ id, garment, before, kept, fromTape, onAsked, onClose }: Props) {
  useWakeLock();
  const { tape } = useSettings();
  const tryOn = kept.value;
  const asking = useAsking(garment, before, tryOn, tape);
  const state = stateOf(garment, tryOn);
  if (!state) throw new Error("a garment has one state at least");
  const stand = useStand(id, { garment: state.garment, wearer: garment.wearer });
  const [at, setAt] = useState(0);
  const steps = asking.data?.steps ?? [];
  const last = steps.length + 1;
  const go = (to: number) => {
    setAt(Math.max(0, Math.min(to, last)));
  };
  const step = at > 0 ? steps[at - 1] : undefined;
  const stepKey = at === 0 ? "conditions" : (step?.key ?? "seen");
  useEffect(() => {
    onAsked({ step: stepKey });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each step
  }, [stepKey]);
  const title = at === 0 ? "Before the first pin" : (step?.title ?? "What was seen");
  const frame = { title, at, of: last, kept, steps, onGo: go, onClose };
  if (at === 0)
    return (
      <Frame {...frame}>
        <div className={styles["scroll"]}>
          <Conditions tryOn={tryOn} onChange={kept.change} large />
        </div>
        <Foot
          onNext={() => {
            go(1);
          }}
        />
      </Frame>
    );
  if (!step)
    return (
      <Frame {...frame}>
        <div className={styles["scroll"]}>
          <Observations
            tryOn={tryOn}
            garment={state.garment}
            wearer={garment.wearer}
            onChange={kept.change}
            large
          />
        </div>
        <Foot
          onBack={() => {
            go(at - 1);
          }}
          next="Done"
          onNext={onClose}
        />
      </Frame>
    );
  const moves = {
    onBack: () => {
      go(at - 1);
    },
    onNext: () => {
      go(at + 1);
    },
  };
  return (
    <Frame {...frame}>
      {step.pins?.length ? (
        <PinStep
          key={step.key}
          step={step}
          places={step.pins}
          garment={garment}
          before={before}
          kept={kept}
          stand={stand}
          fromTape={fromTape}
          onAsked={onAsked}
          oneSide={asking.data?.one_side ?? false}
          {...moves}
        />
      ) : step.hem?.length ? (
        <HemStep
          key={step.key}
          step={step}
          places={step.hem}
          tryOn={tryOn}
          fromTape={fromTape}
          onChange={kept.change}
          {...moves}
        />
      ) : (
        <MovingStep step={step} tryOn={tryOn} fromTape={fromTape} onChange={kept.change} {...moves} />
      )}
    </Frame>
  );
}
