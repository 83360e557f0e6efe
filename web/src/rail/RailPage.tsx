import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { App, Button, Popconfirm, Skeleton } from "antd";
import { Link } from "react-router";
import { answer, api, problemOf, type OnTheRail } from "../api/client";
import { Garment } from "../drawing/StandView";
import { Trouble } from "../shell/Trouble";
import "./rail.css";

/** All garments, hanging in order of what presses most. */
export default function RailPage() {
  const rail = useQuery({ queryKey: ["rail"], queryFn: () => answer(api.GET("/api/v1/rail")) });
  if (rail.isPending) {
    return (
      <main className="rail-page">
        <Skeleton active paragraph={{ rows: 8 }} />
      </main>
    );
  }
  if (rail.isError) return <Trouble problem={problemOf(rail.error)} retry={() => void rail.refetch()} />;
  const first = rail.data[0];
  return (
    <main className="rail-page">
      <div className="rail-head">
        {first ? (
          <p className="what-now">
            What now? <Link to={`/garments/${first.id}`}>{first.next_step}</Link> of {first.wearer}’s{" "}
            {first.name.toLowerCase()}.
          </p>
        ) : (
          <p className="what-now">Nothing hangs here yet. Put the example back to see how it looks.</p>
        )}
        <Reset />
      </div>
      <ul className="rail">
        {rail.data.map((garment) => (
          <Hanging key={garment.id} garment={garment} />
        ))}
      </ul>
    </main>
  );
}

/** Room the hanger takes above the waist, in mm of the drawing. */
const HANGER = 190;

function Hanging({ garment }: { garment: OnTheRail }) {
  const { stand } = garment;
  const front = stand?.views[0] ?? null;
  const cautions = [
    garment.stops > 0 && `${garment.stops} to settle`,
    garment.cautions > 0 && `${garment.cautions} ${garment.cautions === 1 ? "caution" : "cautions"}`,
  ].filter(Boolean);
  const half = (stand?.width_mm ?? 400) / 2 + 30;
  return (
    <li className="hanging">
      <Link
        to={`/garments/${garment.id}`}
        aria-label={`${garment.name}, ${garment.wearer}: ${garment.next_step}`}
      >
        <svg
          viewBox={`${-half} ${-HANGER} ${2 * half} ${(stand?.height_mm ?? 1000) + HANGER + 10}`}
          className="hanging-drawing"
          aria-hidden
        >
          <path
            className="hanger"
            d={`M0 ${-HANGER} V-120 M0 -120 L${-half + 40} -24 H${half - 40} Z M${-half + 60} -24 V14 M${half - 60} -24 V14`}
          />
          {stand && front && <Garment view={front} colour={stand.colour} after />}
        </svg>
        <div className="tag">
          <span className="tag-hole" aria-hidden />
          <h2>{garment.name}</h2>
          <p className="quiet">
            {garment.wearer} · {garment.cloth}
          </p>
          <p className="tag-next">{garment.next_step}</p>
          {cautions.length > 0 && <p className="tag-caution">⚠ {cautions.join(", ")}</p>}
        </div>
      </Link>
    </li>
  );
}

function Reset() {
  const queries = useQueryClient();
  const { message } = App.useApp();
  const reset = useMutation({
    mutationFn: () => answer(api.POST("/api/v1/example/reset")),
    onSuccess: async () => {
      for (const key of Object.keys(localStorage)) {
        if (key.startsWith("vemble.draft.")) localStorage.removeItem(key);
      }
      await queries.resetQueries();
      void message.success("The example is as it was at first.");
    },
    onError: (error) => void message.error(problemOf(error).detail),
  });
  return (
    <Popconfirm
      title="Put the example back?"
      description="Everything you changed in it is forgotten."
      okText="Put it back"
      cancelText="Keep my changes"
      onConfirm={() => {
        reset.mutate();
      }}
    >
      <Button type="text" loading={reset.isPending}>
        Put the example back
      </Button>
    </Popconfirm>
  );
}
