import { Link, useParams } from "react-router";

import { useYears } from "../../api/log";
import { useGarden } from "../../api/queries";
import { say } from "../../texts/say";
import { Faulty } from "../../ui/Faulty";
import { GardenBar } from "../../ui/GardenBar";

/** Years side by side: what grew at each place, what it bore, what failed, what it cost. */
export function YearsPage() {
  const id = Number(useParams().gardenId);
  const garden = useGarden(id);
  const years = useYears(id);
  const failed = garden.error ?? years.error;
  if (failed && !years.data) return <Faulty error={failed} garden={id} />;
  if (!garden.data || !years.data) return <p className="page quiet">{say("common.loading")}</p>;
  const { columns, places } = years.data.report;
  return (
    <>
      <GardenBar garden={garden.data} />
      <main className="page">
        <h1>{say("years.title")}</h1>
        <p className="actions noprint">
          <Link to={`/gardens/${id}/log`}>{say("log.log")}</Link>{" "}
          <Link to={`/gardens/${id}/lessons`}>{say("lessons.title")}</Link>{" "}
          <a href={`/api/gardens/${id}/harvest.csv`} download>
            {say("years.harvestAsTable")}
          </a>{" "}
          <a href={`/api/gardens/${id}/harvest.svg`} download>
            {say("years.harvestAsDrawing")}
          </a>
        </p>
        {places.length === 0 ? (
          <p className="quiet">{say("log.nothingYet")}</p>
        ) : (
          <div className="yearstable">
            <table>
              <thead>
                <tr>
                  <th>{say("log.place")}</th>
                  {columns.map((column) => (
                    <th key={column.year}>
                      {column.year}
                      {column.came && <span className="quiet">{column.came}</span>}
                      {column.gust && <span className="quiet">{column.gust}</span>}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {places.map((place) => (
                  <tr key={place.bed}>
                    <th scope="row">{place.name}</th>
                    {place.cells.map((cell, at) => (
                      <td key={columns[at]?.year} data-label={columns[at]?.year}>
                        {cell.crops && <strong>{cell.crops}</strong>}
                        {cell.lines.map((line) => (
                          <span key={line}>{line}</span>
                        ))}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        )}
      </main>
    </>
  );
}
