import { Input, Segmented, Select } from "antd";
import type { Solved, TryOn } from "../api/client";
import { Words } from "../drawing/Words";

interface Props {
  tryOn: TryOn;
  solved: Solved | null;
  onChange: (tryOn: TryOn) => void;
}

/** How the garment was worn while it was pinned, and what was pinned on which side. */
export function TryOnStage({ tryOn, solved, onChange }: Props) {
  const seams = solved?.try_ons[0]?.seams ?? [];
  return (
    <div className="look-over">
      <section className="sheet">
        <h2>How it was worn</h2>
        <div className="conditions">
          <label htmlFor="date">Day</label>
          <Input
            id="date"
            type="date"
            value={tryOn.date}
            onChange={(event) => {
              if (event.target.value) onChange({ ...tryOn, date: event.target.value });
            }}
          />
          <span id="worn">Worn</span>
          <Segmented<NonNullable<TryOn["worn"]>>
            aria-labelledby="worn"
            options={[
              { value: "right_side_out", label: "right side out" },
              { value: "inside_out", label: "inside out" },
            ]}
            value={tryOn.worn ?? "right_side_out"}
            onChange={(worn) => {
              onChange({ ...tryOn, worn });
            }}
          />
          <label htmlFor="by">Pinned by</label>
          <Select
            id="by"
            options={[
              { value: "helper", label: "a helper" },
              { value: "self_in_mirror", label: "oneself, in a mirror" },
              { value: "dress_form", label: "on a dress form" },
            ]}
            value={tryOn.pinned_by ?? "self_in_mirror"}
            onChange={(pinned_by) => {
              onChange({ ...tryOn, pinned_by });
            }}
          />
          <label htmlFor="conditions">Shoes, layers</label>
          <Input
            id="conditions"
            maxLength={2000}
            key={tryOn.conditions}
            defaultValue={tryOn.conditions}
            onBlur={(event) => {
              if (event.target.value !== tryOn.conditions)
                onChange({ ...tryOn, conditions: event.target.value });
            }}
          />
        </div>
        <p className="quiet">
          Sides are the garment’s own. Inside out, its left is on the wearer’s right; both are named wherever
          it matters.
        </p>
      </section>
      <section className="sheet">
        <h2>What was pinned</h2>
        {seams.length === 0 && (
          <p className="quiet">Nothing yet. Pick a seam on the stand and type its pins.</p>
        )}
        {seams.map((seam) => (
          <table key={seam.seam} className="facts">
            <caption>
              {seam.name}, stations from the {seam.datum}
            </caption>
            <thead>
              <tr>
                <th scope="col">Station</th>
                <th scope="col">Read</th>
                <th scope="col">Each edge</th>
                <th scope="col">Altogether</th>
                <th scope="col">Garment’s</th>
              </tr>
            </thead>
            <tbody>
              {seam.pins.map((pin, index) => (
                <tr key={index}>
                  <td className="figure">
                    <Words>{pin.station.text}</Words>
                  </td>
                  <td className="figure">
                    <Words>{pin.amount.text}</Words>
                  </td>
                  <td className="figure">
                    <Words>
                      {pin.front.nm === pin.back.nm
                        ? pin.front.text
                        : `${pin.front.bare} front, ${pin.back.text} back`}
                    </Words>
                  </td>
                  <td className="figure">
                    <Words>{pin.whole.text}</Words>
                  </td>
                  <td>
                    {pin.side} <small className="quiet">(wearer’s {pin.wearer_side})</small>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        ))}
      </section>
    </div>
  );
}
