import { defineStore } from 'pinia';

interface Action {
  label: string;
  run: () => void;
}

/** The one message at the foot of the screen. */
export const useNotices = defineStore('notices', {
  state: () => ({ open: false, text: '', timeout: 6000, action: null as Action | null }),
  actions: {
    say(text: string, action: Action | null = null) {
      Object.assign(this, { open: true, text, action, timeout: action ? 10000 : 6000 });
    },
    act() {
      this.action?.run();
      this.open = false;
    },
  },
});
