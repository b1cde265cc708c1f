import { useEffect, useState } from "react";
import { folderAddress } from "../../api/folder";
import { PictureLook } from "./PictureLook";
import type { Measuring } from "./pictureTools";

/** A look in a picture, once the picture is here and its size known. */
export function Pictured({
  hash,
  measuring,
  earlierLook: earlier,
  onChange,
}: {
  hash: string;
  measuring: Measuring;
  earlierLook: string;
  onChange: (measuring: Measuring) => void;
}) {
  const [size, setSize] = useState<readonly [number, number] | null>(null);
  useEffect(() => {
    const image = new Image();
    image.onload = () => setSize([image.naturalWidth, image.naturalHeight]);
    image.src = folderAddress(`/api/pictures/${hash}`);
  }, [hash]);
  if (!size) return <p className="text-ink-2">Reading the picture …</p>;
  return <PictureLook {...{ hash, size, measuring, onChange }} earlierLook={earlier} />;
}
