/** The rig in the Bay tells of itself so often, ms: fifteen times a second; needles glide between. */
export const FRAME_MS = 66;
