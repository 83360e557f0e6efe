import { Button, Checkbox, Segmented, Select } from "antd";
import { useState } from "react";
import {
  answer,
  api,
  problemOf,
  type Complaint,
  type DrawnPiece,
  type EdgeName,
  type ReadEdge,
  type ReadPiece,
  type ReadPieces,
} from "../api/client";
import { LengthField } from "../document/LengthField";
import { useSettings } from "../settings";
import { ChooseFile } from "../shell/ChooseFile";
import sheet from "../shell/sheet.module.css";
import styles from "./paper.module.css";

/** What is done to pieces, and may be in a file already. */
type Has = Pick<DrawnPiece, "has" | "has_marks" | "has_try_on">;

interface Props {
  id: string;
  /** Everything that is done to pieces now; nothing where that is nothing. */
  done: Has | null;
  onRead: (pieces: DrawnPiece[]) => void;
}

type Unit = "mm" | "cm" | "in";

interface Said {
  unit?: Unit;
  allowance?: string;
}

/** Pieces out of a file that was drawn elsewhere: what it leaves open is asked, nothing is guessed. */
export function FromFile({ id, done, onRead }: Props) {
  const { tape } = useSettings();
  const [file, setFile] = useState<File | null>(null);
  const [said, setSaid] = useState<Said>({});
  const [wrong, setWrong] = useState<Complaint | null>(null);
  const [read, setRead] = useState<ReadPieces | null>(null);
  const [isReading, setIsReading] = useState(false);
  const open = async (chosen: File, more: Said) => {
    setFile(chosen);
    setSaid(more);
    setWrong(null);
    setRead(null);
    setIsReading(true);
    const read_as = chosen.name.toLowerCase().endsWith(".dxf") ? "dxf" : "svg";
    try {
      setRead(
        await answer(
          api.POST("/api/v1/garments/{garment}/pieces/read", {
            params: { path: { garment: id }, query: { read_as, tape, ...more } },
            // The file as it is.
            body: chosen as unknown as never,
            bodySerializer: (body: unknown) => body as Blob,
            headers: { "Content-Type": read_as === "svg" ? "image/svg+xml" : "image/vnd.dxf" },
          }),
        ),
      );
    } catch (error) {
      const problem = problemOf(error);
      setWrong(problem.errors?.[0] ?? { path: "", found: problem.title, expected: problem.detail });
    } finally {
      setIsReading(false);
    }
  };
  const close = () => {
    setFile(null);
    setRead(null);
    setWrong(null);
  };
  return (
    <>
      <ChooseFile
        loading={isReading}
        label="Read pieces from a file"
        accept=".svg,.dxf,image/svg+xml,image/vnd.dxf"
        onFile={(chosen) => void open(chosen, {})}
      >
        From a file
      </ChooseFile>
      {file && (wrong || read) && (
        <div className={styles["from-file"]} role="region" aria-label="Pieces from a file">
          <div className={sheet["section-head"]}>
            <h3>{file.name}</h3>
            <Button onClick={close}>Leave it</Button>
          </div>
          {wrong && <Open wrong={wrong} onSay={(more) => void open(file, { ...said, ...more })} />}
          {read && (
            <Naming
              key={JSON.stringify(said)}
              read={read}
              done={done}
              onDone={(pieces) => {
                onRead(pieces);
                close();
              }}
            />
          )}
        </div>
      )}
    </>
  );
}

/** What the file leaves open, or what is wrong with it. */
function Open({ wrong, onSay }: { wrong: Complaint; onSay: (said: Said) => void }) {
  if (wrong.path === "unit")
    return (
      <div className={styles["editor-tools"]}>
        <span id="file-unit">It does not say how large it is. One of its units is</span>
        <Segmented<Unit | "">
          aria-labelledby="file-unit"
          options={[
            { value: "mm", label: "1 mm" },
            { value: "cm", label: "1 cm" },
            { value: "in", label: "1 inch" },
          ]}
          value=""
          onChange={(unit) => {
            if (unit) onSay({ unit });
          }}
        />
      </div>
    );
  if (wrong.path === "allowance")
    return (
      <div className={styles["named"]}>
        <span>
          It has lines to cut along, and none to sew along. So much of it is allowance, <b>per edge</b>:
          <small className="quiet">0 where there is none</small>
        </span>
        <LengthField
          label="Allowance in the file, per edge"
          shown=""
          onRead={(allowance) => {
            onSay({ allowance });
          }}
        />
      </div>
    );
  return (
    <p className="field-trouble" role="alert">
      {wrong.path && `${wrong.path}: `}
      {wrong.found}. Expected {wrong.expected}. Nothing was taken in.
    </p>
  );
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

interface NamingProps {
  read: ReadPieces;
  done: Has | null;
  onDone: (pieces: DrawnPiece[]) => void;
}

/** What each piece and each of its edges is: asked where the file does not say. */
function Naming({ read, done, onDone }: NamingProps) {
  const [pieces, setPieces] = useState(read.pieces);
  const [isIn, setIsIn] = useState<boolean | null>(null);
  const put = (place: number, changed: Partial<ReadPiece>) => {
    setPieces((all) => all.map((piece, n) => (n === place ? { ...piece, ...changed } : piece)));
  };
  const [out, setOut] = useState<number[]>([]);
  const taken = pieces.filter((_, n) => !out.includes(n));
  const whole = taken.map(drawn).filter((piece) => piece !== null);
  const isTwice = whole.some((one, n) => whole.slice(0, n).some((other) => same(one.piece, other.piece)));
  const isWhole = taken.length > 0 && whole.length === taken.length && !isTwice;
  const asks = isTwice
    ? "Two pieces are called the same: leave one out."
    : "Say what each piece is, and each of its edges, or leave it out.";
  return (
    <>
      <p className={isWhole ? "quiet" : styles["needs"]}>
        {isWhole ? "Measure one edge of it: is it so long?" : asks}
      </p>
      <ul className={styles["read"]}>
        {pieces.map((piece, n) => (
          <ReadOne
            key={n}
            piece={piece}
            read={read}
            isOut={out.includes(n)}
            onOut={(isOut) => {
              setOut((all) => (isOut ? [...all, n] : all.filter((other) => other !== n)));
            }}
            onPut={(changed) => {
              put(n, changed);
            }}
          />
        ))}
      </ul>
      {done && (
        <div className={styles["editor-tools"]}>
          <span id="file-has">Is what is done to them here in this file already?</span>
          <Segmented<string>
            aria-labelledby="file-has"
            options={[
              { value: "yes", label: "Yes, all of it" },
              { value: "no", label: "No, it is from before" },
            ]}
            value={isIn === null ? "" : isIn ? "yes" : "no"}
            onChange={(picked) => {
              setIsIn(picked === "yes");
            }}
          />
        </div>
      )}
      <Button
        type="primary"
        disabled={!isWhole || (done !== null && isIn === null)}
        onClick={() => {
          onDone(isIn ? whole.map((piece) => ({ ...piece, ...done })) : whole);
        }}
      >
        Put them on the table
      </Button>
    </>
  );
}

/** A piece as it is kept, once everything of it is said. */
function drawn({ piece, cut, edges, darts, grain_mm, levels, drills_mm }: ReadPiece): DrawnPiece | null {
  const named = edges.flatMap(({ name, second, path_mm, allowance, eased, notches }) =>
    name
      ? [{ name, second, path_mm, notches, ...(allowance && { allowance }), ...(eased && { eased }) }]
      : [],
  );
  if (!piece || named.length < edges.length) return null;
  return {
    piece,
    edges: named,
    darts,
    levels,
    drills_mm,
    ...(cut && { cut }),
    ...(grain_mm && { grain_mm }),
  };
}

interface OneProps {
  piece: ReadPiece;
  read: ReadPieces;
  isOut: boolean;
  onOut: (isOut: boolean) => void;
  onPut: (changed: Partial<ReadPiece>) => void;
}

function ReadOne({ piece, read, isOut, onOut, onPut }: OneProps) {
  const [x = 0, y = 0, width = 1, height = 1] = piece.view;
  const around = 0.08 * Math.max(width, height);
  const letters = Math.max(width, height) / 14;
  const name = (place: number, name: EdgeName | undefined) => {
    onPut({ edges: piece.edges.map((edge, n) => (n === place ? withName(edge, name) : edge)) });
  };
  const [wide, tall] = piece.size;
  return (
    <li>
      <svg
        viewBox={`${x - around} ${y - around} ${width + 2 * around} ${height + 2 * around}`}
        className={styles["read-piece"]}
        aria-hidden
      >
        <path className={styles["new-line"]} d={piece.outline} />
        {piece.edges.map((edge, n) => (
          <text
            key={n}
            x={edge.middle_mm[0]}
            y={edge.middle_mm[1]}
            fontSize={letters}
            className={styles["edge-number"]}
          >
            {n + 1}
          </text>
        ))}
      </svg>
      <div className={styles["read-names"]}>
        <label className={styles["read-name"]}>
          <span>
            {piece.says || "a piece without a name"}{" "}
            <small className="quiet">
              {wide?.text} × {tall?.text}
            </small>
          </span>
          <Select
            showSearch={{ optionFilterProp: "label" }}
            aria-label={`What ${piece.says} is`}
            placeholder="Which piece is it?"
            value={piece.piece ? read.piece_names.findIndex((p) => same(p.piece, piece.piece)) : null}
            options={read.piece_names.map((p, n) => ({ value: n, label: p.words }))}
            onChange={(n) => {
              const picked = read.piece_names[n];
              if (picked) onPut({ piece: picked.piece });
            }}
          />
        </label>
        <Checkbox
          checked={isOut}
          onChange={(event) => {
            onOut(event.target.checked);
          }}
        >
          leave it out
        </Checkbox>
        {piece.edges.map((edge, n) => (
          <label key={n} className={styles["read-name"]}>
            <span>
              edge <b>{n + 1}</b>, <span className="figure">{edge.long.text}</span> long{" "}
              <small className="quiet">{edge.says}</small>
            </span>
            <Select
              showSearch={{ optionFilterProp: "label" }}
              aria-label={`What edge ${n + 1} of ${piece.says} is`}
              placeholder="Which edge is it?"
              value={edge.name ? read.edge_names.findIndex((e) => same(e.name, edge.name)) : null}
              options={read.edge_names.map((e, k) => ({ value: k, label: e.words }))}
              onChange={(k) => {
                name(n, read.edge_names[k]?.name);
              }}
            />
          </label>
        ))}
      </div>
    </li>
  );
}

function withName(edge: ReadEdge, name: EdgeName | undefined): ReadEdge {
  return name ? { ...edge, name, second: false } : edge;
}
