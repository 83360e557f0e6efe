import { ArrowLeftOutlined, PrinterOutlined } from "@ant-design/icons";
import { useQuery } from "@tanstack/react-query";
import { Button, Checkbox, Segmented, Skeleton } from "antd";
import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import {
  answer,
  api,
  problemOf,
  type Card,
  type Figure,
  type MarkResult,
  type SolvedSeam,
} from "../api/client";
import { Words } from "../drawing/Words";
import { spoken } from "../drawing/words";
import { useSettings } from "../settings";
import { Trouble } from "../shell/Trouble";
import "./card.css";

type Paper = "A5" | "A4" | "letter";
type Shows = Card["columns"][number]["shows"];

/** The chalk card: what lies beside the cloth, in the order in which the hand moves. */
export default function CardPage() {
  const { garment = "", change = "" } = useParams();
  const [search] = useSearchParams();
  const wanted = search.get("try-on");
  const { tape } = useSettings();
  const [paper, setPaper] = useState<Paper>("A5");
  const solved = useQuery({
    queryKey: ["card", garment, wanted, tape],
    queryFn: async () => {
      const state = await answer(api.GET("/api/v1/garments/{garment}", { params: { path: { garment } } }));
      const all = state.document.try_ons ?? [];
      const chosen = all.filter((t) => t.id === wanted);
      const newest = chosen.length > 0 ? chosen : all.slice(-1);
      const body = { ...state.document, try_ons: newest };
      const solved = await answer(api.POST("/api/v1/solve", { params: { query: { tape } }, body }));
      return { solved, id: newest[0]?.id ?? "" };
    },
    gcTime: 0,
    placeholderData: (before) => before,
  });
  if (solved.isPending) {
    return (
      <main className="card-page">
        <Skeleton active paragraph={{ rows: 12 }} />
      </main>
    );
  }
  if (solved.isError)
    return <Trouble problem={problemOf(solved.error)} retry={() => void solved.refetch()} />;
  const tryOn = solved.data.solved.try_ons[0];
  const card = tryOn?.cards.find((c) => c.key === change);
  const drawn = [...(tryOn?.seams ?? []), ...(tryOn?.darts ?? [])].find((s) => s.key === change);
  if (!card) {
    const detail = `There is nothing on the ${spoken(change.replace("dart.", ""))} yet. Enter them under Lines, then come back.`;
    return <Trouble problem={{ type: "empty", title: "Nothing to chalk", status: 404, detail }} />;
  }
  return (
    <main className="card-page">
      {/* The paper is chosen here, not by whoever prints. */}
      <style>{`@page { size: ${paper}; margin: 9mm; }`}</style>
      <div className="card-tools">
        <Link to={`/garments/${garment}/lines?try-on=${solved.data.id}`}>
          <Button icon={<ArrowLeftOutlined />}>Lines</Button>
        </Link>
        <Segmented<Paper>
          aria-label="Paper"
          options={["A5", "A4", { value: "letter", label: "Letter" }]}
          value={paper}
          onChange={setPaper}
        />
        <Button
          type="primary"
          icon={<PrinterOutlined />}
          onClick={() => {
            print();
          }}
        >
          Print
        </Button>
      </div>
      <CardSheet card={card} seam={drawn ?? null} paper={paper} keep={`${solved.data.id}.${change}`} />
    </main>
  );
}

function CardSheet({
  card,
  seam,
  paper,
  keep,
}: {
  card: Card;
  /** The seam or darts it is of; elastic has no line. */
  seam: SolvedSeam | null;
  paper: Paper;
  keep: string;
}) {
  const key = `vemble.chalked.${keep}`;
  const [chalked, setChalked] = useState<string[]>(() => (localStorage.getItem(key) ?? "").split("\n"));
  const tick = (station: string, on: boolean) => {
    const next = on ? [...chalked, station] : chalked.filter((s) => s !== station);
    localStorage.setItem(key, next.join("\n"));
    setChalked(next);
  };
  const marks = seam?.marks ?? [];
  const done = marks.filter((row) => chalked.includes(row.station.text)).length;
  return (
    <article className={`chalk-card paper-${paper}`}>
      <header>
        <h1>{card.title}</h1>
        <p>{card.garment}</p>
      </header>
      {seam && <CardDrawing seam={seam} />}
      <p className="card-measured">{card.measured}</p>
      {marks.length > 0 && (
        <table>
          <thead>
            <tr>
              <th scope="col" className="no-print">
                <span className="unseen">Chalked</span>
              </th>
              <th scope="col">{card.station_heading}</th>
              {card.columns.map((column) => (
                <th key={column.shows} scope="col">
                  {column.heading}
                </th>
              ))}
              <th scope="col">
                <span className="unseen">Place</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {marks.map((row) => (
              <tr key={row.station.nm} className={chalked.includes(row.station.text) ? "chalked" : ""}>
                <td className="no-print">
                  <Checkbox
                    aria-label={`Chalked at ${row.station.text}`}
                    checked={chalked.includes(row.station.text)}
                    onChange={(event) => {
                      tick(row.station.text, event.target.checked);
                    }}
                  />
                </td>
                <td className="card-station figure">
                  <Words>{row.station.bare}</Words>
                </td>
                {card.columns.map((column, index) => (
                  <td
                    key={column.shows}
                    className={column.shows.endsWith("whole") ? "figure" : "card-figure figure"}
                    data-column={index}
                  >
                    <Words>{figureOf(row, column.shows)?.bare ?? "–"}</Words>
                  </td>
                ))}
                <td className="card-note">{row.note}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {marks.length > 0 && (
        <p className="no-print card-done" role="status">
          {done} of {marks.length} chalked
        </p>
      )}
      {card.notes.map((note) => (
        <p key={note} className="card-small">
          {note}
        </p>
      ))}
      <ol>
        {card.steps.map((step) => (
          <li key={step}>
            <Words>{step}</Words>
          </li>
        ))}
      </ol>
      {card.cautions.length > 0 && (
        <section>
          <h2>Know first</h2>
          <ul>
            {card.cautions.map((caution) => (
              <li key={caution}>
                ⚠ <Words>{caution}</Words>
              </li>
            ))}
          </ul>
        </section>
      )}
      {card.afterwards.length > 0 && (
        <section>
          <h2>Afterwards it should measure</h2>
          <ul>
            {card.afterwards.map((line) => (
              <li key={line}>
                <Words>{line}</Words>
              </li>
            ))}
          </ul>
        </section>
      )}
    </article>
  );
}

function figureOf(row: MarkResult, shows: Shows): Figure | undefined {
  const side = shows.startsWith("left") ? row.left : row.right;
  switch (shows) {
    case "left_front":
    case "right_front":
      return side?.front;
    case "left_back":
    case "right_back":
      return side?.back;
    case "left_whole":
    case "right_whole":
      return side?.whole;
    case "left_cut_front":
    case "right_cut_front":
      return side?.cut?.[0];
    case "left_cut_back":
    case "right_cut_back":
      return side?.cut?.[1];
  }
}

/** Old line dashed, new line solid, the marks as dots: small, but made from the same numbers. */
function CardDrawing({ seam }: { seam: SolvedSeam }) {
  const { strip } = seam;
  const width = 600;
  const across = (width - 20) / strip.length_mm;
  const sideways = Math.min(60 / Math.max(strip.deepest_mm, 10), 6 * across);
  const height = strip.deepest_mm * sideways + 34;
  const drawn = seam.sides_agree ? strip.sides.slice(0, 1) : strip.sides;
  return (
    <>
      {drawn.map((side) => (
        <svg
          key={side.side}
          className="card-drawing"
          viewBox={`0 0 ${width} ${height}`}
          role="img"
          aria-label={`The new line${seam.sides_agree ? "" : `, garment’s ${side.side}`}`}
        >
          <line className="card-old" x1={10} x2={width - 10} y1={height - 22} y2={height - 22} />
          <g transform={`translate(10 ${height - 22}) scale(${across} ${-sideways})`}>
            {side.old_line && (
              <path className="card-old" vectorEffect="non-scaling-stroke" d={side.old_line} />
            )}
            {side.cut && <path className="card-cut" vectorEffect="non-scaling-stroke" d={side.cut} />}
            {side.line && <path className="card-new" vectorEffect="non-scaling-stroke" d={side.line} />}
          </g>
          {seam.marks.map((mark) => {
            // Where the sides agree their marks stand once, on the left.
            const figures = seam.sides_agree || side.side === "left" ? mark.left : mark.right;
            if (!figures) return null;
            const x = 10 + (mark.station.nm / 1e6) * across;
            return (
              <circle
                key={mark.station.nm}
                cx={x}
                cy={height - 22 - (figures.front.nm / 1e6) * sideways}
                r={3}
              />
            );
          })}
          <text x={10} y={height - 5}>
            {seam.datum}
          </text>
          <text x={width - 10} y={height - 5} textAnchor="end">
            {seam.sides_agree ? seam.top : `${seam.top} · garment’s ${side.side}`}
          </text>
        </svg>
      ))}
    </>
  );
}
