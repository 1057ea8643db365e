import { pxPerMm } from '../view/scale.js';
import { room } from './room.js';
import { shownProfiles, view } from './state.js';

const LENGTH_CM = 10;

/** How large a centimetre of the devices is drawn. */
export function CmRuler() {
  const cm = 10 * pxPerMm(shownProfiles.value, room.value) * view.value.zoom;
  return (
    <svg
      class="cm-ruler"
      width={cm * LENGTH_CM + 48}
      height="22"
      role="img"
      aria-label="Ruler, 10 cm of the devices"
    >
      {Array.from({ length: LENGTH_CM + 1 }, (_, i) => (
        <path key={i} d={`M${i * cm + 0.5} ${i % 5 === 0 ? 2 : 8}V14`} />
      ))}
      <path d={`M0 14H${cm * LENGTH_CM + 1}`} />
      <text x={cm * LENGTH_CM + 5} y="14">
        {LENGTH_CM} cm
      </text>
    </svg>
  );
}
