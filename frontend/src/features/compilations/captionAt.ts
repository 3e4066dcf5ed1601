import type { Schemas } from "../../api/client";

type Caption = Schemas["CaptionOut"];

const STAYS = 0.8; // seconds that a caption stays in a pause, so that the text does not flicker

/** The caption of a moment: captions are in order and do not overlap. */
export function captionAt(captions: readonly Caption[], seconds: number): Caption | undefined {
  let [low, high] = [0, captions.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((captions[middle]?.start ?? Infinity) <= seconds) low = middle;
    else high = middle - 1;
  }
  const found = captions[low];
  return found && found.start <= seconds && seconds < found.end + STAYS ? found : undefined;
}
