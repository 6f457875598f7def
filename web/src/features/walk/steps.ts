/** A first pour, a step at a time: where to look, what it means, and what to try there. */
export const STEPS = [
  {
    stage: "tank",
    part: "size",
    title: "The space",
    text: "The dam stands on its base; depths count down from the fill line. Type another fill line: the walls follow, and the pours are laid anew if it is much deeper.",
  },
  {
    stage: "bed",
    part: "hands",
    title: "The bed",
    text: "Press on the chart to build up, carve off or rub smooth. A bed of plaster or sand is full of air: see that it is sealed before resin comes to it.",
  },
  {
    stage: "figures",
    part: "place",
    title: "Who lives there",
    text: "Drag a figure in the section. Floats or sinks tells whether it needs holding; the words above lead to what holds it.",
  },
  {
    stage: "water",
    part: "doses",
    title: "The water",
    text: "A drop more is soon too much. Change a dose and see the picture, the light that is left and the sight of each figure answer.",
  },
  {
    stage: "pours",
    part: "plan",
    title: "How it is poured",
    text: "Each pour has its depth, its heat and the window in which the next one bonds to it. Press a number to see how it is known.",
  },
  {
    stage: "pours",
    part: "plans",
    title: "Too hot, too many?",
    text: "Ask for the fewest pours that stop nothing in your room. Try one: before and after stand side by side until you keep it or drop it.",
  },
  {
    stage: "bench",
    part: null,
    title: "The pour day",
    text: "Both parts of every cup stand here, and the sheet to print: gloves on, window open, the clock starts when the parts meet.",
  },
  {
    stage: "finish",
    part: null,
    title: "Out of the dam",
    text: "The day on which the dam can come off, and what follows. That was a first pour: begin a piece of your own when you like.",
  },
] as const;
