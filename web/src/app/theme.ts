import { definePreset } from '@primeuix/themes';
import base from '@primeuix/themes/aura/base';
import button from '@primeuix/themes/aura/button';
import datatable from '@primeuix/themes/aura/datatable';
import dialog from '@primeuix/themes/aura/dialog';
import drawer from '@primeuix/themes/aura/drawer';
import popover from '@primeuix/themes/aura/popover';
import toast from '@primeuix/themes/aura/toast';
import toggleswitch from '@primeuix/themes/aura/toggleswitch';

/** Both schemes take their colours from the roles in styles.scss, which switch with the theme. */
const scheme = {
  surface: {
    0: 'var(--sheet)',
    50: 'var(--sheet)',
    100: 'var(--bench)',
    200: 'var(--rule)',
    300: 'var(--rule)',
    400: 'var(--soft)',
    500: 'var(--soft)',
    600: 'var(--soft)',
    700: 'var(--ink)',
    800: 'var(--ink)',
    900: 'var(--ink)',
    950: 'var(--ink)',
  },
  primary: {
    color: 'var(--blue)',
    contrastColor: 'var(--on-blue)',
    hoverColor: 'var(--blue)',
    activeColor: 'var(--blue)',
  },
  highlight: {
    background: 'var(--blue-wash)',
    focusBackground: 'var(--blue-wash)',
    color: 'var(--blue)',
    focusColor: 'var(--blue)',
  },
  formField: {
    background: 'var(--sheet)',
    borderColor: 'var(--rule)',
    hoverBorderColor: 'var(--soft)',
    focusBorderColor: 'var(--blue)',
    color: 'var(--ink)',
    placeholderColor: 'var(--soft)',
    shadow: 'none',
  },
  text: { color: 'var(--ink)', hoverColor: 'var(--ink)', mutedColor: 'var(--soft)', hoverMutedColor: 'var(--ink)' },
  content: {
    background: 'var(--sheet)',
    hoverBackground: 'var(--blue-wash)',
    borderColor: 'var(--rule)',
    color: 'var(--ink)',
    hoverColor: 'var(--ink)',
  },
  overlay: {
    select: { background: 'var(--sheet)', borderColor: 'var(--rule)', color: 'var(--ink)' },
    popover: { background: 'var(--sheet)', borderColor: 'var(--rule)', color: 'var(--ink)' },
    modal: { background: 'var(--sheet)', borderColor: 'var(--rule)', color: 'var(--ink)' },
  },
};

/** The house look on the component library: only the components in use, only our roles of colour. */
export const houseTheme = definePreset(
  {
    ...base,
    components: { button, datatable, dialog, drawer, popover, toast, toggleswitch },
  },
  {
    semantic: {
      focusRing: { width: '2px', style: 'solid', color: 'var(--blue)', offset: '2px' },
      formField: { paddingX: '0.65rem', paddingY: '0.35rem', borderRadius: '6px' },
      overlay: { modal: { shadow: '0 1px 3px rgb(0 0 0 / 20%)' }, select: { shadow: '0 1px 3px rgb(0 0 0 / 20%)' } },
      colorScheme: { light: scheme, dark: scheme },
    },
    components: {
      datatable: {
        headerCell: {
          padding: 'var(--space-1) var(--space-2)',
          background: 'var(--sheet)',
          color: 'var(--soft)',
          hoverColor: 'var(--ink)',
        },
        columnTitle: { fontWeight: '500' },
        bodyCell: { padding: 'var(--space-1) var(--space-2)', borderColor: 'var(--rule)' },
        row: { background: 'var(--sheet)', color: 'var(--ink)' },
        colorScheme: {
          light: { bodyCell: { selectedBorderColor: 'var(--blue)' } },
          dark: { bodyCell: { selectedBorderColor: 'var(--blue)' } },
        },
      },
    },
  },
);
