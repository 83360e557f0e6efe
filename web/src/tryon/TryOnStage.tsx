import { PlusOutlined } from "@ant-design/icons";
import { App, Button, Popconfirm, Segmented } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import {
  answer,
  api,
  problemOf,
  type ChangeKey,
  type Document,
  type Solved,
  type TryOn,
  type LeadLine,
} from "../api/client";
import { Words } from "../drawing/Words";
import { Photos } from "../photos/Photos";
import { UndoTools } from "../document/UndoTools";
import type { Kept } from "../document/useKept";
import { useSettings } from "../settings";
import { Compared } from "./Compared";
import { Conditions } from "./Conditions";
import { Inviting } from "./Inviting";
import { Observations } from "./Observations";
import { useAsking } from "../document/useAsking";
import { newTryOn } from "../document/useGarment";
import { useWords } from "../document/useWords";
import { lineOf, stateOf } from "../document/changes";
import { today } from "../document/today";
import { LinkButton } from "../shell/LinkButton";
import type { OneTryOn } from "../document/useTryOn";
import sheet from "../shell/sheet.module.css";
import styles from "./tryon.module.css";

interface Props {
  garment: Document;
  one: OneTryOn;
  all: OneTryOn[];
  kept: Kept<TryOn>;
  solved: Solved | null;
  onOpen: (id: string) => void;
  onNew: (tryOn: OneTryOn) => void;
  onRemove: (id: string) => void;
  /** Opens the change that a sign leads to, as a what-if in Lines. */
  onLead: (lead: LeadLine) => void;
}

const dayOf = (date: string) =>
  new Date(`${date}T12:00:00`).toLocaleDateString("en-GB", { day: "numeric", month: "short" });

/** The try-ons of a garment: how it was worn, what was pinned and marked, how it moved, what was seen. */
export function TryOnStage({ garment, one, all, kept, solved, onOpen, onNew, onRemove, onLead }: Props) {
  const { message } = App.useApp();
  const [inviting, setInviting] = useState(false);
  const [comparing, setComparing] = useState(false);
  const tryOn = kept.value;
  const isStored = kept.version > 0;
  const now = stateOf(garment, tryOn)?.garment;
  const remove = async () => {
    try {
      const params = { path: { garment: one.garment, try_on: one.id } };
      if (isStored) await answer(api.DELETE("/api/v1/garments/{garment}/try-ons/{try_on}", { params }));
      onRemove(one.id);
    } catch (error) {
      void message.error(problemOf(error).detail);
    }
  };
  const shown = all.map((t) => (t.id === one.id ? tryOn : (t.draft?.value ?? t.initial)));
  return (
    <div className={clsx(sheet["panels"], styles["stacked"])}>
      <section className="sheet">
        <div className={sheet["section-head"]}>
          <h2>Try-ons</h2>
          <UndoTools canUndo={kept.canUndo} canRedo={kept.canRedo} onUndo={kept.undo} onRedo={kept.redo} />
        </div>
        <div className={styles["try-on-list"]}>
          <Segmented
            aria-label="Which try-on"
            options={all.map((t, index) => ({
              value: t.id,
              label: `${index + 1} · ${dayOf(shown[index]?.date ?? today())}`,
            }))}
            value={one.id}
            onChange={onOpen}
          />
          <Button
            icon={<PlusOutlined />}
            onClick={() => {
              onNew(newTryOn(one.garment, stateOf(garment)?.id ?? "", tryOn));
            }}
          >
            New try-on
          </Button>
          {all.length > 1 && (
            <Button
              aria-pressed={comparing}
              onClick={() => {
                setComparing(!comparing);
              }}
            >
              {comparing ? "This one alone" : "Side by side"}
            </Button>
          )}
        </div>
        <div className={styles["try-on-ways"]}>
          <LinkButton
            to={`/garments/${one.garment}/fitting/${one.id}`}
            type="primary"
            size="large"
            disabled={tryOn.closed ?? false}
          >
            Fitting mode
          </LinkButton>
          <Button
            size="large"
            disabled={tryOn.closed ?? false}
            onClick={() => {
              setInviting(true);
            }}
          >
            Invite a helper or screen
          </Button>
          <LinkButton to={`/garments/${one.garment}/large/${one.id}`} target="_blank" size="large">
            Large view
          </LinkButton>
          {tryOn.closed ? (
            <span className="quiet">Closed: helpers add nothing any more.</span>
          ) : (
            <Popconfirm
              title="Close this try-on?"
              description="Whoever was invited is out. You can still change it."
              okText="Close it"
              cancelText="Not yet"
              onConfirm={() => {
                kept.change({ ...tryOn, closed: true });
              }}
            >
              <Button type="text">Close it</Button>
            </Popconfirm>
          )}
          <Popconfirm
            title="Remove this try-on?"
            description="Its pins, marks and notes go with it; this cannot be undone."
            okText="Remove it"
            cancelText="Keep it"
            onConfirm={() => void remove()}
          >
            <Button type="text" danger>
              Remove
            </Button>
          </Popconfirm>
        </div>
        <Inviting
          one={one}
          open={inviting}
          onClose={() => {
            setInviting(false);
          }}
        />
      </section>
      {comparing ? (
        <section className={clsx("sheet", styles["whole-width"])}>
          <h2>Side by side</h2>
          <Compared garment={garment} tryOns={shown} />
        </section>
      ) : (
        <>
          <section className="sheet">
            <h2>How it was worn</h2>
            <Conditions key={one.id} tryOn={tryOn} onChange={kept.change} />
          </section>
          <section className="sheet">
            <h2>What was pinned</h2>
            <Pinned solved={solved} tryOn={tryOn} />
          </section>
          <Asked garment={garment} tryOn={tryOn} />
          <section className="sheet">
            <h2>What was seen</h2>
            {now && (
              <Observations
                tryOn={tryOn}
                garment={now}
                wearer={garment.wearer}
                onChange={kept.change}
                onLead={onLead}
              />
            )}
          </section>
          {isStored && <Photos garment={one.garment} tryOn={one.id} />}
        </>
      )}
    </div>
  );
}

function Pinned({ solved, tryOn }: { solved: Solved | null; tryOn: TryOn }) {
  const words = useWords();
  const pinned = (solved?.try_ons[0]?.changes ?? []).flatMap((change) => {
    const line = lineOf(change);
    return line && line.pins.length > 0 ? [{ ...change, line }] : [];
  });
  const left = tryOn.left_out ?? [];
  const nameOf = (key: ChangeKey) => solved?.changeable.find((change) => change.key === key)?.name ?? "";
  if (pinned.length + left.length === 0)
    return (
      <p className="quiet">
        Nothing yet. Open the fitting mode, on a phone if there is one, or pick a seam on the stand and type
        its pins under Lines.
      </p>
    );
  return (
    <>
      {pinned.map((change) => (
        <table key={change.key} className={sheet["facts"]}>
          <caption>
            {change.name}, stations from the {change.line.datum}
          </caption>
          <thead>
            <tr>
              <th scope="col">Station</th>
              <th scope="col">Read</th>
              <th scope="col">Per edge</th>
              <th scope="col">Altogether</th>
              <th scope="col">Garment’s</th>
            </tr>
          </thead>
          <tbody>
            {change.line.pins.map((pin, index) => (
              <tr key={index}>
                <td className="figure">
                  <Words>{pin.station.text}</Words>
                </td>
                <td className="figure">
                  <Words>{pin.amount.text}</Words>
                </td>
                <td className="figure">
                  <Words>{pin.edges}</Words>
                </td>
                <td className="figure">
                  <Words>{pin.whole.text}</Words>
                </td>
                <td>
                  {change.line.has_sides ? (
                    <>
                      {pin.side} <small className="quiet">({pin.seen_words})</small>
                    </>
                  ) : (
                    "–"
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ))}
      {left.length > 0 && (
        <ul className={styles["left-out"]}>
          {left.map((l) => (
            <li key={`${l.change} ${l.side} ${l.level}`}>
              {nameOf(l.change)} at the {words.of("level", l.level)}, garment’s {l.side}:{" "}
              {words.of("why", l.why)}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

/** Hems and movements, as far as they were entered. */
function Asked({ garment, tryOn }: { garment: Document; tryOn: TryOn }) {
  const { tape } = useSettings();
  const asking = useAsking(garment, undefined, tryOn, tape);
  const steps = asking.data?.steps ?? [];
  const hems = steps.filter((s) => s.hem?.some((h) => h.mark));
  const moved = steps.flatMap((s) => s.movements ?? []).filter((m) => m.went);
  if (hems.length + moved.length === 0) return null;
  return (
    <section className="sheet">
      <h2>Hems and moving</h2>
      {hems.map((step) => (
        <table key={step.key} className={sheet["facts"]}>
          <caption>{step.title}</caption>
          <thead>
            <tr>
              <th scope="col">Where</th>
              <th scope="col">First</th>
              <th scope="col">Upright</th>
              <th scope="col">Apart</th>
            </tr>
          </thead>
          <tbody>
            {step.hem
              ?.filter((h) => h.mark)
              .map((h) => (
                <tr key={h.words}>
                  <td>{h.words}</td>
                  <td className="figure">
                    <Words>{h.mark?.first.text ?? ""}</Words>
                  </td>
                  <td className="figure">
                    <Words>{h.mark?.again?.text ?? "–"}</Words>
                  </td>
                  <td className="figure">
                    <Words>{h.mark?.apart?.text ?? "–"}</Words>
                  </td>
                </tr>
              ))}
          </tbody>
        </table>
      ))}
      {moved.length > 0 && (
        <ul className={styles["left-out"]}>
          {moved.map((m) => (
            <li key={m.movement}>
              {m.words}: <strong>{m.went}</strong>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
