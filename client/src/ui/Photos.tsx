import { say } from "../texts/say";

interface Props {
  garden: number;
  photos: readonly string[];
  words: string;
}

/** Photos of an entry, small; each opens large. */
export function Photos({ garden, photos, words }: Props) {
  if (!photos.length) return null;
  return (
    <span className="photos">
      {photos.map((sha) => (
        <a key={sha} href={`/api/gardens/${garden}/photos/${sha}`} target="_blank" rel="noreferrer">
          <img
            src={`/api/gardens/${garden}/photos/${sha}?small=true`}
            alt={say("log.photoOf", { words })}
            loading="lazy"
          />
        </a>
      ))}
    </span>
  );
}
