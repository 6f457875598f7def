import { useDocument } from "../../desk/document";
import { Box } from "@chakra-ui/react";
import { Canvas, useThree } from "@react-three/fiber";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useState } from "react";
import { BufferAttribute, BufferGeometry, DoubleSide, ExtrudeGeometry, Mesh, Shape } from "three";
import { GLTFLoader } from "three/examples/jsm/loaders/GLTFLoader.js";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { useDrag } from "../../ui/drag";
import { Word } from "../../ui/pill";
import { lengthText } from "../../units/display";

import { type Eye, eyeAt, FIRST, keyed, moved } from "./turning";
import { Problem } from "../../ui/problem";

const MM = 1e-3;

/** The piece turned about: tank, bed and figures from the core's model, layers in their computed colours. */
export function RoundView() {
  const { scene, outcome, outcomeOf, units } = useDocument();
  const [eye, setEye] = useState<Eye>(FIRST);
  const drag = useDrag((right, down) => {
    setEye((now) => moved(now, -right * 0.4, down * 0.3));
  });
  const model = useQuery({
    queryKey: ["model", outcome.scene_digest],
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
    queryFn: async () => {
      const data: unknown = await ask(api.POST("/api/model", { body: outcomeOf, parseAs: "arrayBuffer" }));
      const made = (await new GLTFLoader().parseAsync(data as ArrayBuffer, "")).scene;
      made.traverse((part) => {
        if (part instanceof Mesh && /^(air|dry)-/.test(part.name)) shineThrough(part);
      });
      return made;
    },
  });
  const { tank } = scene;
  const size = Math.hypot(tank.inner_width_mm, tank.inner_behind_mm, tank.fill_height_mm) * MM;
  return (
    <Box position="relative" minHeight="0" as="section" aria-label="Sounding">
      <Box
        position="absolute"
        inset="0"
        cursor="grab"
        touchAction="none"
        tabIndex={0}
        role="img"
        aria-label={`The piece in the round, ${lengthText(tank.inner_width_mm, units)} by ${lengthText(tank.inner_behind_mm, units)} by ${lengthText(tank.fill_height_mm, units)}; turned ${Math.round(eye.turn_deg)} degrees. Arrow keys turn it, plus and minus come closer and go back`}
        onKeyDown={(event) => {
          const next = keyed(eye, event.key);
          if (!next) return;
          event.preventDefault();
          setEye(next);
        }}
        {...drag}
        onWheel={(event) => {
          setEye((now) => moved(now, 0, 0, event.deltaY > 0 ? 1.06 : 0.94));
        }}
      >
        <Canvas frameloop="demand" camera={{ fov: 32, near: size / 50, far: size * 20 }} dpr={[1, 2]}>
          <EyeStand eye={eye} size={size} />
          <hemisphereLight args={["#ffffff", "#7f8a80", 1.6]} />
          <directionalLight position={[0.3 * size, 2 * size, 0.8 * size]} intensity={1.5} />
          <group
            position={[
              (-tank.inner_width_mm / 2) * MM,
              (-tank.fill_height_mm / 2) * MM,
              (tank.inner_behind_mm / 2) * MM,
            ]}
          >
            {model.data ? <primitive object={model.data} /> : null}
            <Layers />
            <Walls />
          </group>
        </Canvas>
      </Box>
      <Box position="absolute" left="16px" bottom="10px" color="soft" fontSize="14px">
        {model.error ? (
          <Problem>{model.error.message}</Problem>
        ) : model.data ? (
          "drag or arrow keys to turn, wheel or + and - to come closer"
        ) : (
          "shaping the piece ..."
        )}
        <Word
          fontSize="14px"
          onClick={() => {
            setEye(FIRST);
          }}
        >
          as at first
        </Word>
        <Word
          fontSize="14px"
          onClick={() => {
            setEye({ turn_deg: 0, lift_deg: 0, away: 2 });
          }}
        >
          front
        </Word>
        <Word
          fontSize="14px"
          onClick={() => {
            setEye({ turn_deg: 0, lift_deg: 88, away: 2 });
          }}
        >
          above
        </Word>
      </Box>
    </Box>
  );
}

/** Air and late hollows are hidden by what holds them: they are drawn over it. */
function shineThrough(part: Mesh) {
  part.renderOrder = 3;
  for (const one of [part.material].flat()) one.depthTest = false;
}

function EyeStand({ eye, size }: { eye: Eye; size: number }) {
  const { camera, invalidate } = useThree();
  useEffect(() => {
    camera.position.set(...eyeAt(eye, size));
    camera.lookAt(0, 0, 0);
    camera.updateProjectionMatrix();
    invalidate();
  }, [camera, eye, invalidate, size]);
  return null;
}

/** Every layer as a clear body in the colour that the core computed for its middle depth. */
function Layers() {
  const { outcome, scene } = useDocument();
  const outline = outcome.section.above.tank_mm;
  const fill = scene.tank.fill_height_mm;
  const plan = useMemo(() => {
    const shape = new Shape();
    const middle = (axis: number) =>
      outline.reduce((sum, point) => sum + (point[axis] ?? 0), 0) / Math.max(1, outline.length);
    const [cx, cy] = [middle(0), middle(1)];
    // a hair inside the walls, so that the bed at the glass is not drawn over
    outline.forEach((point, index) => {
      const [x, y] = [(cx + ((point[0] ?? 0) - cx) * 0.995) * MM, (cy + ((point[1] ?? 0) - cy) * 0.995) * MM];
      if (index) shape.lineTo(x, y);
      else shape.moveTo(x, y);
    });
    return shape;
  }, [outline]);
  return (
    <>
      {outcome.pours.map((pour) => {
        const middle = (pour.top_depth_mm + pour.bottom_depth_mm) / 2;
        const at = outcome.water.depth_mm.findIndex((depth) => depth >= middle);
        const colour = outcome.water.backdrop_srgb[Math.max(0, at)] ?? "#9fc8b8";
        const share = 1 - (outcome.water.light_fraction[Math.max(0, at)] ?? 0.5);
        return (
          <mesh
            key={pour.id}
            rotation={[-Math.PI / 2, 0, 0]}
            position={[0, (fill - pour.bottom_depth_mm) * MM, 0]}
            renderOrder={2}
          >
            <primitive
              object={new ExtrudeGeometry(plan, { depth: (pour.fill.depth_mm - 0.05) * MM, bevelEnabled: false })}
              attach="geometry"
            />
            <meshBasicMaterial
              color={colour}
              transparent
              opacity={0.16 + 0.3 * share}
              depthWrite={false}
              side={DoubleSide}
            />
          </mesh>
        );
      })}
    </>
  );
}

/** The edges of the walls, floor to rim. */
function Walls() {
  const { scene, outcome } = useDocument();
  const { above } = outcome.section;
  const rise = scene.tank.wall_height_mm;
  const lines = useMemo(() => {
    const ring = above.tank_mm.map((point) => [(point[0] ?? 0) * MM, (point[1] ?? 0) * MM] as const);
    const corners: number[] = [];
    const every = Math.max(1, Math.floor(ring.length / 12));
    ring.forEach(([x, y], index) => {
      const [nx, ny] = ring[(index + 1) % ring.length] ?? [x, y];
      for (const z of [0, rise * MM]) corners.push(x, z, -y, nx, z, -ny);
      if (index % every === 0) corners.push(x, 0, -y, x, rise * MM, -y);
    });
    const geometry = new BufferGeometry();
    geometry.setAttribute("position", new BufferAttribute(new Float32Array(corners), 3));
    return geometry;
  }, [above.tank_mm, rise]);
  return (
    <lineSegments geometry={lines}>
      <lineBasicMaterial color="#55636a" />
    </lineSegments>
  );
}
