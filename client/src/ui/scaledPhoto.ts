const LONGEST = 1600; // pixels
const QUALITY = 0.82;

/** A photo as it is sent: upright, scaled, as base64. A file that is no picture is refused. */
export async function scaledPhoto(file: File): Promise<string> {
  const image = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST / Math.max(image.width, image.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(image.width * scale);
  canvas.height = Math.round(image.height * scale);
  canvas.getContext("2d")?.drawImage(image, 0, 0, canvas.width, canvas.height);
  return canvas.toDataURL("image/jpeg", QUALITY).split(",")[1] ?? "";
}
