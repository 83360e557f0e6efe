import type { Document, Solved } from "../api/client";
import { Words } from "../drawing/Words";

const spoken = (word: string) => word.replaceAll("_", " ");

/** What was found before anything is pinned: the garment's measurements, its seams, its cloth, and its wearer. */
export function LookOverStage({ document, solved }: { document: Document; solved: Solved | null }) {
  const { garment } = document;
  const { cloth, wearer } = garment;
  return (
    <div className="look-over">
      <section className="sheet">
        <h2>The garment, measured</h2>
        <table className="facts">
          <thead>
            <tr>
              <th scope="col">Level</th>
              <th scope="col">Up from hem</th>
              <th scope="col">All the way round</th>
            </tr>
          </thead>
          <tbody>
            {(solved?.levels ?? []).map((level) => (
              <tr key={level.level}>
                <th scope="row">{level.level}</th>
                <td className="figure">
                  <Words>{level.station.text}</Words>
                </td>
                <td>
                  <span className="figure">
                    <Words>{level.before.text}</Words>
                  </span>{" "}
                  <small className="quiet">
                    <Words>{level.sum.split(" = ")[0] ?? ""}</Words>
                  </small>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <section className="sheet">
        <h2>Inside its seams</h2>
        {garment.seams.map((seam) => (
          <dl key={seam.seam} className="facts">
            <dt>{seam.seam}</dt>
            <dd>
              {seam.length} long, {seam.allowance} allowance on each edge
              {seam.in_the_way?.map((thing) => (
                <div key={thing.what} className="quiet">
                  {thing.what} from {thing.from} to {thing.to}
                </div>
              ))}
            </dd>
          </dl>
        ))}
        <h2>Cloth</h2>
        <p>
          {cloth.name}: {cloth.structure}, {cloth.drape},{" "}
          {cloth.stretch_percent ? `stretches ${cloth.stretch_percent} %` : "does not stretch"}, frays{" "}
          {spoken(cloth.frays)}.
        </p>
      </section>
      <section className="sheet">
        <h2>{wearer.name}</h2>
        <dl className="facts">
          {Object.entries(wearer.measurements ?? {}).map(([what, measure]) => (
            <div key={what}>
              <dt>{spoken(what)}</dt>
              <dd className="figure">{measure}</dd>
            </div>
          ))}
        </dl>
        {wearer.notes?.map((note) => (
          <p key={note} className="quiet">
            {note}
          </p>
        ))}
      </section>
    </div>
  );
}
