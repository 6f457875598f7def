/** The height of the window, less what has to be known before anything else along its top. */
export const WINDOW = "calc(100vh - var(--strip, 0px))";
