import type { WiringPlan } from '@/core/calculators/wire-and-fuse';

interface Props {
  readonly plan: WiringPlan;
  /** m, one way, as typed. */
  readonly length: string;
  readonly unit: string;
}

/** Battery, fuse, feed, unit and ground with what each is, as it is laid. */
export function WiringDrawing({ plan, length, unit }: Props) {
  const each = `${plan.lossEachSide.toFixed(3)} V`;
  const wire = `${plan.area} mm², ${length} m`;
  return (
    <svg
      viewBox="0 0 640 250"
      role="img"
      aria-label={`From the battery through a fuse of ${plan.fuse} A close to it, ${wire} to the ${unit}, and ${wire} back to the battery’s negative. ${each} are lost on each side.`}
    >
      <g fill="none" stroke="var(--palette-tone-ink)" strokeWidth={2}>
        <rect x={24} y={80} width={96} height={96} />
        <path d="M42 80 V68 H58 V80 M86 80 V68 H102 V80" />
        <path d="M94 68 V36 H128" />
        <rect x={128} y={24} width={64} height={24} />
        <path d="M128 36 H192" strokeWidth={1} />
        <rect x={500} y={72} width={116} height={112} />
      </g>
      <path d="M192 36 H556 V72" fill="none" stroke="var(--palette-tone-ink)" strokeWidth={4} />
      <path d="M50 68 V48 H12 V220 H556 V184" fill="none" stroke="var(--palette-tone-ink)" strokeWidth={4} />
      <g fill="var(--palette-tone-ink)" fontSize={15}>
        <text x={50} y={102} textAnchor="middle">
          −
        </text>
        <text x={94} y={102} textAnchor="middle">
          +
        </text>
        <text x={72} y={140} textAnchor="middle">
          Battery
        </text>
        <text x={160} y={66} textAnchor="middle" fontWeight={700}>
          {plan.fuse} A
        </text>
        <text x={160} y={84} textAnchor="middle" fontSize={13}>
          close to it
        </text>
        <text x={372} y={24} textAnchor="middle" fontWeight={700}>
          Feed {wire}
        </text>
        <text x={372} y={60} textAnchor="middle" fontSize={13}>
          loses {each}
        </text>
        <text x={558} y={134} textAnchor="middle">
          Unit
        </text>
        <text x={310} y={208} textAnchor="middle" fontWeight={700}>
          Ground {wire}
        </text>
        <text x={310} y={242} textAnchor="middle" fontSize={13}>
          loses {each}, to the battery’s negative or its own stud
        </text>
      </g>
    </svg>
  );
}
