import { Button, Dropdown, Segmented, Select, Skeleton } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import {
  problemOf,
  type ClothLies,
  type Pattern,
  type PieceChip,
  type PieceSet,
  type PieceShown,
  type Pieces,
} from "../api/client";
import { LengthField } from "../document/LengthField";
import { StandSketch } from "../drawing/StandView";
import { useSettings } from "../settings";
import { Trouble } from "../shell/Trouble";
import sheet from "../shell/sheet.module.css";
import { FromFile } from "./FromFile";
import { NewChange, type PieceChange } from "./NewChange";
import { Walk } from "./Walk";
import styles from "./paper.module.css";
import { usePieces } from "./usePieces";

interface Props {
  id: string;
  pattern: Pattern;
  /** What the try-on says now: pieces follow it. */
  follows: unknown;
  /** The newest try-on: what is chalked in it is carried to paper. */
  tryOn: string | null;
  onSet: (part: Partial<Pattern>) => void;
}

/** The pieces on a table: old line and new line, what was done, and what does not match. */
export function PiecesPart({ id, pattern, follows, tryOn, onSet }: Props) {
  const [width, setWidth] = useState<string | null>(null);
  const [lies, setLies] = useState<ClothLies>("one_way");
  const [side, setSide] = useState(0);
  const [picked, setPicked] = useState<number | null>(null);
  const [walked, setWalked] = useState<number | null>(null);
  const [edited, setEdited] = useState<number | null>(null);
  const changes = pattern.changes ?? [];
  const found = usePieces(id, pattern, follows, { lies, ...(width && { width }) });
  if (found.isError && !found.data)
    return <Trouble problem={problemOf(found.error)} retry={() => void found.refetch()} />;
  if (!found.data) return <Skeleton active paragraph={{ rows: 8 }} />;
  const pieces = found.data;
  const set = pieces.sets[side] ?? pieces.sets[0];
  const drawn = pattern.drawn ?? [];
  const fromFile = (
    <FromFile
      id={id}
      done={
        pieces.chips.some((chip) => typeof chip.drawn !== "number")
          ? { has: changes, has_marks: pattern.marks ?? [], ...(tryOn && { has_try_on: tryOn }) }
          : null
      }
      onRead={(read) => {
        const is = (piece: unknown) => JSON.stringify(piece);
        const others = drawn.filter((old) => read.every((piece) => is(piece.piece) !== is(old.piece)));
        onSet({ drawn: [...others, ...read] });
      }}
    />
  );
  if (pieces.none || !set)
    return (
      <section className={clsx("sheet", styles["size"])} aria-label="Pieces">
        <p className={clsx("quiet", sheet["empty"])}>{pieces.none}</p>
        {fromFile}
      </section>
    );
  const without = (place: number) => {
    onSet({ changes: changes.filter((_, n) => n !== place) });
    setEdited(null);
  };
  const add = (change: PieceChange) => {
    onSet({ changes: [...changes, change] });
  };
  const editing = edited === null ? null : (changes[edited] ?? null);
  return (
    <section className={clsx("sheet", styles["size"])} aria-label="Pieces">
      <div className={clsx(sheet["section-head"], styles["head"])}>
        <h2>Pieces</h2>
        {fromFile}
        <div className={sheet["tools"]}>
          {pieces.sets.length > 1 && (
            <Segmented<number>
              aria-label="Which side"
              options={pieces.sets.map((s, n) => ({ value: n, label: `${s.side ?? ""} side` }))}
              value={side}
              onChange={setSide}
            />
          )}
          <Files id={id} isChanged={pieces.sets.some((each) => each.pieces.some((piece) => piece.old))} />
        </div>
      </div>
      <Untrue
        set={set}
        onPick={setPicked}
        onMend={add}
        onWalk={(name) => {
          setWalked(set.joins.findIndex((j) => j.name === name));
        }}
      />
      <Table set={set} picked={picked} onPick={setPicked} />
      <p className="quiet">
        {set.pieces.some((piece) => piece.old) && (
          <>
            <Key of="old">as it is</Key> <Key of="new">where it is sewn</Key>{" "}
          </>
        )}
        {set.pieces.some((piece) => !piece.old) && <Key of="kept">sewn as it is</Key>}{" "}
        <Key of="cut">what is cut</Key>
      </p>
      {pieces.stand && (
        <figure className={styles["on-stand"]} aria-label="On the stand">
          <StandSketch stand={pieces.stand.before} changes={pieces.stand.after} />
          <figcaption>
            <Key of="old">as it is</Key> <Key of="new">sewn from these pieces</Key>
          </figcaption>
        </figure>
      )}
      {pieces.round.length > 0 && (
        <ul className={styles["round"]} aria-label="What goes round on paper">
          {pieces.round.map(({ name, chalked, on_paper }) => (
            <li key={name}>
              On paper: {name} <strong>{on_paper.text}</strong>, and {chalked.text} as it is chalked
            </li>
          ))}
        </ul>
      )}
      {picked !== null && set.pieces[picked] && <Edges piece={set.pieces[picked]} />}
      <Done
        pieces={pieces}
        edited={editing ? edited : null}
        onEdit={setEdited}
        onTakeAway={without}
        onTakeAwayDrawn={(place) => {
          onSet({ drawn: drawn.filter((_, n) => n !== place) });
        }}
      />
      <NewChange
        key={editing ? edited : "new"}
        pieces={pieces}
        picked={picked}
        editing={editing}
        onDone={(change) => {
          if (editing) onSet({ changes: changes.map((was, n) => (n === edited ? change : was)) });
          else add(change);
          setEdited(null);
        }}
        onLeave={() => {
          setEdited(null);
        }}
      />
      <Walk joins={set.joins} picked={walked} onPick={setWalked} />
      <p>{pieces.cloth}.</p>
      {pieces.not_drawn.map((says) => (
        <p key={says}>{says}.</p>
      ))}
      <div className={styles["new-change"]} role="group" aria-label="The cloth">
        <span>On cloth</span>
        <LengthField label="Width of the cloth" shown={pieces.cloth_width.text} onRead={setWidth} />
        <span>wide,</span>
        <Select<ClothLies>
          aria-label="How pieces may lie on the cloth"
          popupMatchSelectWidth={false}
          value={lies}
          options={pieces.cloth_ways.map((way) => ({ value: way.lies, label: way.words }))}
          onChange={setLies}
        />
      </div>
      {pieces.off_border.length > 0 && (
        <ul className={styles["flags"]} aria-label="What does not lie on the border">
          {pieces.off_border.map((says) => (
            <li key={says}>⚠ {says}.</li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** The pieces as files at true size. */
function Files({ id, isChanged }: { id: string; isChanged: boolean }) {
  const { tape } = useSettings();
  const file = (format: string, more = "") =>
    `/api/v1/garments/${id}/pieces?format=${format}&tape=${tape}${more}`;
  const items = [
    { key: "a4", label: "PDF on A4", href: file("pdf", "&paper=a4") },
    { key: "letter", label: "PDF on Letter", href: file("pdf", "&paper=letter") },
    ...(isChanged
      ? [
          {
            key: "a4-changed",
            label: "Only what changed, PDF on A4",
            href: file("pdf", "&paper=a4&which=changed"),
          },
          {
            key: "letter-changed",
            label: "Only what changed, PDF on Letter",
            href: file("pdf", "&paper=letter&which=changed"),
          },
        ]
      : []),
    { key: "svg", label: "SVG, in mm", href: file("svg") },
    { key: "dxf", label: "DXF, in mm", href: file("dxf") },
    { key: "list", label: "The cutting list", href: file("text") },
  ];
  return (
    <Dropdown
      menu={{
        items: items.map(({ key, label, href }) => ({
          key,
          label: (
            <a href={href} download>
              {label}
            </a>
          ),
        })),
      }}
    >
      <Button>At true size</Button>
    </Dropdown>
  );
}

interface UntrueProps {
  set: PieceSet;
  onPick: (piece: number) => void;
  onMend: (change: PieceChange) => void;
  onWalk: (name: string) => void;
}

/** What does not match, with what mends it. */
function Untrue({ set, onPick, onMend }: UntrueProps) {
  if (set.untrue.length === 0)
    return <p className={styles["true"]}>✓ Everything that is sewn together matches.</p>;
  return (
    <ul className={styles["untrue"]} aria-label="What does not match">
      {set.untrue.map((line) => (
        <li key={line.title + line.figures}>
          <Button
            type="link"
            onClick={() => {
              const [first] = line.pieces;
              if (first !== undefined) onPick(first);
            }}
          >
            ⚠ {line.title}
          </Button>
          <span>{line.figures}</span>
          {line.mends.length > 0 && (
            <span className={sheet["tools"]}>
              {line.mends.map((mend) => (
                <Button
                  key={mend.words}
                  size="small"
                  onClick={() => {
                    onMend(mend.change);
                  }}
                >
                  {mend.words}
                </Button>
              ))}
            </span>
          )}
        </li>
      ))}
    </ul>
  );
}

interface TableProps {
  set: PieceSet;
  picked: number | null;
  onPick: (piece: number | null) => void;
}

/** All pieces on one table, to one scale. */
function Table({ set, picked, onPick }: TableProps) {
  const tallest = Math.max(...set.pieces.map((p) => p.view[3] ?? 0));
  return (
    <div className={styles["table"]}>
      {set.pieces.map((piece, n) => {
        const [x = 0, y = 0, width = 1, height = 1] = piece.view;
        return (
          <button
            key={piece.name}
            type="button"
            className={clsx(styles["piece"], n === picked && styles["piece-picked"])}
            aria-pressed={n === picked}
            onClick={() => {
              onPick(n === picked ? null : n);
            }}
          >
            <svg
              viewBox={`${x} ${y} ${width} ${height}`}
              style={{ height: `${(300 * height) / tallest}px` }}
              aria-hidden
            >
              <path className={styles["cut-line"]} d={piece.cut_line} />
              {piece.old && <path className={styles["old-line"]} d={piece.old} />}
              <path className={clsx(styles["new-line"], piece.old && styles["moved"])} d={piece.outline} />
              <path className={styles["marks"]} d={piece.marks} />
            </svg>
            <strong>{piece.name}</strong>
            <small className="quiet">{piece.cut}</small>
          </button>
        );
      })}
    </div>
  );
}

/** What a line is drawn as, and what it is, on one line. */
function Key({ of, children }: { of: "old" | "new" | "kept" | "cut"; children: string }) {
  return (
    <span className={styles["key"]}>
      <span className={styles[`key-${of}`]} /> {children}
    </span>
  );
}

/** The edges of one piece: how long each is, and what is cut outside. */
function Edges({ piece }: { piece: PieceShown }) {
  return (
    <table className={sheet["facts"]}>
      <caption>{piece.name}</caption>
      <thead>
        <tr>
          <th scope="col">edge or dart</th>
          <th scope="col">long, as it is sewn</th>
          <th scope="col">allowance, per edge</th>
        </tr>
      </thead>
      <tbody>
        {piece.edges.map((edge, n) => (
          <tr key={n}>
            <th scope="row">{edge.words}</th>
            <td className="figure">{edge.long.text}</td>
            <td className="figure">{edge.allowance.nm === 0 ? "none" : edge.allowance.text}</td>
          </tr>
        ))}
        {piece.darts.map((dart, n) => (
          <tr key={`dart-${n}`}>
            <th scope="row">{dart.words}</th>
            <td className="figure">{dart.long?.text ?? "not stitched"}</td>
            <td className="figure">{dart.says}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

interface DoneProps {
  pieces: Pieces;
  /** Which of what was entered is being changed. */
  edited: number | null;
  onEdit: (place: number) => void;
  onTakeAway: (place: number) => void;
  onTakeAwayDrawn: (place: number) => void;
}

/** What was done to them, chip by chip. */
function Done({ pieces, edited, onEdit, onTakeAway, onTakeAwayDrawn }: DoneProps) {
  const takeAway = ({ entered, drawn }: PieceChip) => {
    if (typeof entered === "number") onTakeAway(entered);
    if (typeof drawn === "number") onTakeAwayDrawn(drawn);
  };
  return (
    <>
      {pieces.chips.length > 0 && (
        <ul className={styles["chips"]} aria-label="What is done to them">
          {pieces.chips.map((chip, n) => (
            <li
              key={n}
              className={clsx(
                chip.cannot && styles["cannot"],
                typeof chip.entered === "number" && chip.entered === edited && styles["edited"],
              )}
            >
              <span>
                {chip.words}
                {chip.cannot && `: not done, ${chip.cannot}`}
              </span>
              {typeof chip.entered === "number" && pieces.may.length > 0 && (
                <Button
                  size="small"
                  type="link"
                  aria-label={`Change: ${chip.words}`}
                  onClick={() => {
                    if (typeof chip.entered === "number") onEdit(chip.entered);
                  }}
                >
                  change
                </Button>
              )}
              {(typeof chip.entered === "number" || typeof chip.drawn === "number") && (
                <Button
                  size="small"
                  type="text"
                  aria-label={`Take away: ${chip.words}`}
                  onClick={() => {
                    takeAway(chip);
                  }}
                >
                  ×
                </Button>
              )}
            </li>
          ))}
        </ul>
      )}
      {pieces.left.length > 0 && (
        <p className="quiet">Chalked, and not drawn on these pieces: {pieces.left.join(", ")}.</p>
      )}
    </>
  );
}
