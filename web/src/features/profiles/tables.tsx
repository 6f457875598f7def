import { useDocument } from "../../desk/document";
import { figureName } from "../../desk/names";
import { hoursText, lengthText, temperatureText } from "../../units/display";

/** Every profile as a table, for who does not see the plots. */
export function ProfileTables() {
  const { outcome, units, scene } = useDocument();
  const { heat, water, bubbles, pours, sights } = outcome;
  const percent = (share: number | null | undefined) =>
    share === null || share === undefined ? "-" : `${Math.round(share * 100)} %`;
  const warm = (value: number | undefined) => (value === undefined ? "-" : temperatureText(value, units));
  return (
    <>
      <Table
        caption="Heat and cure against depth"
        heads={["depth", "pour", "peak", "from", "to", "gel after"]}
        rows={heat.depth_mm.map((depth, level) => [
          lengthText(depth, units, 1),
          String(heat.pour_number[level]),
          warm(heat.peak_c[level]),
          warm(heat.low_c[level]),
          warm(heat.high_c[level]),
          hoursText(heat.gel_h[level]),
        ])}
      />
      <Table
        caption="Smallest bubble that leaves, against depth"
        heads={["depth", "bubble"]}
        rows={bubbles.depth_mm.map((depth, level) => {
          const least = bubbles.escape_diameter_mm[level];
          return [
            lengthText(depth, units, 1),
            least === null || least === undefined ? "none leave" : lengthText(least, units, 2),
          ];
        })}
      />
      <Table
        caption="Layer lines"
        heads={["depth", "joint", "free to bond", "colour step"]}
        rows={pours
          .filter((pour) => pour.joint.seam)
          .map((pour) => [
            lengthText(pour.bottom_depth_mm, units, 1),
            pour.joint.words,
            percent(pour.joint.bond?.bond_fraction),
            pour.joint.seam ? `${pour.joint.seam.seam_de00.toFixed(1)}, ${pour.joint.seam.words}` : "-",
          ])}
      />
      <Table
        caption="Light left against depth"
        heads={["depth", "all", "red", "green", "blue", "back wall"]}
        rows={water.depth_mm.map((depth, at) => [
          lengthText(depth, units, 1),
          percent(water.light_fraction[at]),
          percent(water.red_fraction[at]),
          percent(water.green_fraction[at]),
          percent(water.blue_fraction[at]),
          water.backdrop_srgb[at] ?? "-",
        ])}
      />
      <Table
        caption="Sight of figures"
        heads={["figure", "from", "to", "contrast left", "reads as"]}
        rows={sights.map((one) => [
          figureName(scene, one.figure_id),
          lengthText(one.top_depth_mm, units, 1),
          lengthText(one.bottom_depth_mm, units, 1),
          percent(one.contrast_fraction),
          one.reads_srgb,
        ])}
      />
    </>
  );
}

function Table({ caption, heads, rows }: { caption: string; heads: string[]; rows: string[][] }) {
  return (
    <table>
      <caption>{caption}</caption>
      <thead>
        <tr>
          {heads.map((head) => (
            <th key={head} scope="col">
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, index) => (
          <tr key={index}>
            {row.map((cell, at) => (
              <td key={heads[at]}>{cell}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
