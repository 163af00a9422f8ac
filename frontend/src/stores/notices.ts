import { defineStore } from 'pinia';

interface Action {
  label: string;
  run: () => void;
}

/** The one message at the foot of the screen. */
export const useNotices = defineStore('notices', {
  state: () => ({
    /** Which message it is: each has its own time. */
    serial: 0,
    open: false,
    text: '',
    timeout: 6000,
    action: null as Action | null,
  }),
  actions: {
    say(text: string, action: Action | null = null) {
      const serial = this.serial + 1;
      Object.assign(this, { serial, open: true, text, action, timeout: action ? 10000 : 6000 });
    },
    act() {
      this.action?.run();
      this.open = false;
    },
  },
});
