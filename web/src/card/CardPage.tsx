import { ArrowLeftOutlined, DownloadOutlined, PrinterOutlined } from "@ant-design/icons";
import { useQuery } from "@tanstack/react-query";
import { Button, Checkbox, Popover, Segmented, Skeleton, Space } from "antd";
import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { answer, api, problemOf, type Card, type Figure, type MarkResult } from "../api/client";
import { Words } from "../drawing/Words";
import { bare, spoken } from "../drawing/words";
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
      const solved = await answer(
        api.POST("/api/v1/solve", { params: { query: { tape, cards: true } }, body }),
      );
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
        <Files
          href={(format) =>
            `/api/v1/garments/${garment}/try-ons/${solved.data.id}/cards?${new URLSearchParams({ format, card: change, tape, paper: paper.toLowerCase() }).toString()}`
          }
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
      <CardSheet card={card} paper={paper} keep={`${solved.data.id}.${change}`} />
    </main>
  );
}

function CardSheet({ card, paper, keep }: { card: Card; paper: Paper; keep: string }) {
  const key = `vemble.chalked.${keep}`;
  const [chalked, setChalked] = useState<string[]>(() => (localStorage.getItem(key) ?? "").split("\n"));
  const tick = (station: string, on: boolean) => {
    const next = on ? [...chalked, station] : chalked.filter((s) => s !== station);
    localStorage.setItem(key, next.join("\n"));
    setChalked(next);
  };
  const { marks } = card;
  const done = marks.filter((row) => chalked.includes(row.station.text)).length;
  return (
    <article className={`chalk-card paper-${paper}`}>
      <header>
        <h1>{card.title}</h1>
        <p>{card.garment}</p>
      </header>
      {card.drawings.map((drawing) => (
        <Drawing key={drawing.of ?? ""} drawing={drawing} />
      ))}
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
                  <Words>{bare(row.station)}</Words>
                </td>
                {card.columns.map((column, index) => (
                  <td
                    key={column.shows}
                    className={column.shows.endsWith("whole") ? "figure" : "card-figure figure"}
                    data-column={index}
                  >
                    <Figures row={row} shows={column.shows} />
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

/** A figure that opens its sum. */
function Figures({ row, shows }: { row: MarkResult; shows: Shows }) {
  const side = shows.startsWith("left") ? row.left : row.right;
  const figure = figureOf(side, shows);
  if (!side || !figure) return <>–</>;
  return (
    <Popover trigger={["hover", "focus"]} content={<Words>{side.sum}</Words>}>
      <button type="button" className="card-explained" aria-label={`${figure.text}: ${side.sum}`}>
        <Words>{bare(figure)}</Words>
      </button>
    </Popover>
  );
}

function figureOf(side: MarkResult["left"], shows: Shows): Figure | undefined {
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

/** Old line dashed, new line solid, cut line in long dashes, the marks as dots. */
function Drawing({ drawing }: { drawing: Card["drawings"][number] }) {
  const { width, height, of } = drawing;
  return (
    <svg
      className="card-drawing"
      viewBox={`0 0 ${width} ${height + 18}`}
      role="img"
      aria-label={`The new line${of ? `, ${of}` : ""}`}
    >
      <path className="card-old" d={drawing.old} />
      {drawing.cut && <path className="card-cut" d={drawing.cut} />}
      <path className="card-new" d={drawing.new} />
      {drawing.dots.map(([x, y]) => (
        <circle key={x} cx={x} cy={y} r={3} />
      ))}
      <text x={0} y={height + 13}>
        {drawing.from}
      </text>
      {of && (
        <text x={width / 2} y={height + 13} textAnchor="middle">
          {of}
        </text>
      )}
      <text x={width} y={height + 13} textAnchor="end">
        {drawing.to}
      </text>
    </svg>
  );
}

const FILES = [
  { format: "pdf", words: "PDF" },
  { format: "text", words: "Text" },
  { format: "csv", words: "CSV" },
] as const;

/** The card as a file; the server writes it. */
function Files({ href }: { href: (format: string) => string }) {
  return (
    <Space.Compact aria-label="Save as" role="group">
      {FILES.map(({ format, words }) => (
        <Button key={format} icon={<DownloadOutlined />} href={href(format)} download>
          {words}
        </Button>
      ))}
    </Space.Compact>
  );
}
