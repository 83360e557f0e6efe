import { useQuery } from "@tanstack/react-query";
import { clsx } from "clsx";
import { answer, api, problemOf, type Document, type TryOn } from "../api/client";
import { documentOf } from "../document/changes";
import { Words } from "../drawing/Words";
import { useSettings } from "../settings";
import sheet from "../shell/sheet.module.css";
import styles from "./tryon.module.css";

/** All try-ons of a garment side by side; what differs stands out. */
export function Compared({ garment, tryOns }: { garment: Document; tryOns: TryOn[] }) {
  const { tape } = useSettings();
  const compared = useQuery({
    queryKey: ["comparison", garment.states, garment.wearer, tryOns, tape],
    queryFn: () => {
      const body = documentOf(garment, tryOns);
      return answer(api.POST("/api/v1/comparison", { params: { query: { tape } }, body }));
    },
    gcTime: 0,
  });
  if (compared.isError) return <p className="field-trouble">{problemOf(compared.error).detail}</p>;
  if (!compared.data) return null;
  const { columns, sections } = compared.data;
  return (
    <div className={sheet["compared"]}>
      <table className={sheet["facts"]}>
        <thead>
          <tr>
            <th />
            {columns.map((column, index) => (
              <th key={index} scope="col">
                {column}
              </th>
            ))}
          </tr>
        </thead>
        {sections
          .filter((s) => s.rows.length > 0)
          .map((section) => (
            <tbody key={section.title}>
              <tr>
                <th colSpan={columns.length + 1} scope="rowgroup" className={styles["compared-title"]}>
                  {section.title}
                </th>
              </tr>
              {section.rows.map((row) => (
                <tr key={row.what} className={clsx(row.changed && sheet["changed-row"])}>
                  <th scope="row">
                    <Words>{row.what}</Words>
                  </th>
                  {row.cells.map((cell, index) => (
                    <td key={index}>
                      <Words>{cell || "–"}</Words>
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          ))}
      </table>
      <p className="quiet">Rows that differ are marked with a bar.</p>
    </div>
  );
}
