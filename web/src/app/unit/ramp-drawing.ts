import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

/** The pin between the two pressure rings, with the angle drawn from where the builder measures it. */
@Component({
  selector: 'hs-ramp-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="24 2 212 128" role="img" [attr.aria-label]="label()">
      <defs>
        <pattern id="ramp-hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0v6" stroke="var(--soft)" stroke-width="0.8" />
        </pattern>
      </defs>
      <!-- the axle's axis lies across, the rings turn up and down -->
      <path [attr.d]="left()" fill="url(#ramp-hatch)" stroke="var(--ink)" stroke-width="1.4" />
      <path [attr.d]="right()" fill="url(#ramp-hatch)" stroke="var(--ink)" stroke-width="1.4" />
      <circle cx="130" cy="66" r="11" fill="var(--steel-light)" stroke="var(--ink)" stroke-width="1.4" />
      <path [attr.d]="reference()" stroke="var(--ochre)" stroke-width="1.2" stroke-dasharray="4 3" fill="none" />
      <path [attr.d]="arc()" stroke="var(--ochre)" stroke-width="2" fill="none" />
      <text x="196" y="16" fill="var(--ochre-text)" font-size="12" text-anchor="middle">
        {{ angle().toFixed(0) }}° {{ from() === 'axis' ? 'from the axis' : 'from rotation' }}
      </text>
      <path d="M40 108v-30m-4 6l4-7 4 7" stroke="var(--soft)" stroke-width="1.3" fill="none" />
      <text transform="translate(31 108) rotate(-90)" fill="var(--soft)" font-size="11">rotation</text>
      <text x="222" y="124" fill="var(--soft)" font-size="11" text-anchor="middle">axis ↔</text>
    </svg>
  `,
  styles: `
    svg {
      width: 100%;
      max-height: 132px;
      display: block;
    }
  `,
})
export class RampDrawing {
  /** As the builder quotes it. */
  readonly angle = input.required<number>();
  readonly from = input.required<'rotation-plane' | 'axis'>();
  readonly label = input('Ramp and cross pin');

  /** From the plane of rotation, radians; kept drawable at the ends. */
  private readonly alpha = computed(() => {
    const fromPlane = this.from() === 'axis' ? 90 - this.angle() : this.angle();
    return (Math.min(Math.max(fromPlane, 3), 90) * Math.PI) / 180;
  });
  /** How far the notch is deep along the axis for half of its height. */
  private readonly notch = computed(() => {
    const height = 30;
    const depth = Math.min(34, height * Math.tan(this.alpha()));
    return { depth, height: depth / Math.tan(this.alpha()) };
  });
  protected readonly left = computed(() => {
    const { depth, height } = this.notch();
    const face = 122;
    return `M${face - 62} 22H${face}V${66 - height}L${face - depth} 66L${face} ${66 + height}V110H${face - 62}Z`;
  });
  protected readonly right = computed(() => {
    const { depth, height } = this.notch();
    const face = 138;
    return `M${face + 62} 22H${face}V${66 - height}L${face + depth} 66L${face} ${66 + height}V110H${face + 62}Z`;
  });
  private readonly corner = computed(() => {
    const { depth } = this.notch();
    return { x: 138 + depth, y: 66 };
  });
  protected readonly reference = computed(() => {
    const { x, y } = this.corner();
    return this.from() === 'axis' ? `M${x} ${y}h-46` : `M${x} ${y}v-44`;
  });
  protected readonly arc = computed(() => {
    const { x, y } = this.corner();
    const radius = 30;
    const at = (fromPlane: number): string => `${x - radius * Math.sin(fromPlane)} ${y - radius * Math.cos(fromPlane)}`;
    const [start, end] = this.from() === 'axis' ? [this.alpha(), Math.PI / 2] : [0, this.alpha()];
    return `M${at(start)}A${radius} ${radius} 0 0 0 ${at(end)}`;
  });
}
