import { render, screen } from "@testing-library/react";
import { scaleLinear } from "d3-scale";
import { describe, expect, it } from "vitest";

import { Curve, Limit, Profile } from "./profile";
import { DepthContext } from "./scales";

const frame = { depth: scaleLinear([0, 100], [50, 250]), top: 50, bottom: 250 };

function draw(children: React.ReactNode) {
  return render(
    <DepthContext value={frame}>
      <svg>
        <Profile x={10} width={80} title="heat" under="peak °C">
          {children}
        </Profile>
      </svg>
    </DepthContext>,
  );
}

describe("Profile", () => {
  it("names itself and draws its curve on the depth axis", () => {
    const { container } = draw(<Curve depths={[0, 100]} values={[20, 60]} domain={[20, 60]} width={80} ink="black" />);
    expect(screen.getByRole("img", { name: "heat against depth, peak °C" })).toBeInTheDocument();
    const path = container.querySelector("path[stroke=black]")?.getAttribute("d");
    expect(path).toMatch(/^M0,50/);
    expect(path).toMatch(/80,250$/);
  });
  it("leaves a gap where a level has no value", () => {
    const { container } = draw(
      <Curve depths={[0, 30, 60, 100]} values={[20, null, 40, 60]} domain={[20, 60]} width={80} ink="black" />,
    );
    expect(container.querySelector("path[stroke=black]")?.getAttribute("d")?.match(/M/g)).toHaveLength(2);
  });
  it("leaves out a limit that lies off the plot", () => {
    draw(<Limit at={90} domain={[20, 60]} width={80} word="glue" />);
    expect(screen.queryByText("glue")).toBeNull();
  });
});
