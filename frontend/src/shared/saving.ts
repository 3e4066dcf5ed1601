/** The drawing as a file of its own: SVG with its size and name space. */
export function svgText(drawing: SVGSVGElement): string {
  const copy = drawing.cloneNode(true) as SVGSVGElement;
  const { width, height } = drawing.viewBox.baseVal;
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  copy.setAttribute("width", String(width));
  copy.setAttribute("height", String(height));
  copy.querySelectorAll("[tabindex]").forEach((each) => each.removeAttribute("tabindex"));
  return new XMLSerializer().serializeToString(copy);
}

const SCALE = 2; // dots of the picture for each pixel of the drawing
const LARGEST = 8000; // dots of one side: browsers refuse larger canvases

/** The drawing as a PNG. Throws an `Error` with a sentence when the browser cannot draw it. */
export async function pngOf(drawing: SVGSVGElement): Promise<Blob> {
  const { width, height } = drawing.viewBox.baseVal;
  const scale = Math.min(SCALE, LARGEST / width, LARGEST / height);
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svgText(drawing))}`;
  await image.decode();
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(width * scale);
  canvas.height = Math.round(height * scale);
  canvas.getContext("2d")?.drawImage(image, 0, 0, canvas.width, canvas.height);
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, "image/png"));
  if (!blob) throw new Error("The browser could not draw the map as a picture. Save it as SVG.");
  return blob;
}

/** Gives a file to the browser's downloads. */
export function save(blob: Blob, name: string): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
