// The keys of the bench. They are left alone while somebody types or is on a button.

export function attachKeys(actions) {
  document.addEventListener('keydown', event => {
    if (document.querySelector('dialog[open]')) {
      return;
    }
    const control = event.target.closest('input, select, textarea, button, a, summary');
    const typing = control?.matches('input:not([type=checkbox]), select, textarea');
    const action = find(event, actions);
    if (!action || typing || (control && (event.key === ' ' || event.key === 'Enter'))) {
      return;
    }
    event.preventDefault();
    action();
  });
}

function find(event, actions) {
  const control = event.ctrlKey || event.metaKey;
  if (control) {
    const name = event.key.toLowerCase();
    return name === 'z' ? (event.shiftKey ? actions.redo : actions.undo) : name === 'a' ? actions.selectAll : null;
  }
  const step = event.shiftKey ? 4800 : 480;
  switch (event.key) {
    case ' ': return event.shiftKey ? actions.playSelection : actions.play;
    case 'ArrowLeft': return () => actions.nudge(-step);
    case 'ArrowRight': return () => actions.nudge(step);
    case 'Home': return actions.toStart;
    case 'End': return actions.toEnd;
    case '1': return actions.markStart;
    case '2': return actions.markEnd;
    case '4': return actions.remove;
    case '5': return actions.blank;
    case '6': return actions.soften;
    case '7': return actions.split;
    case 'n':
    case 'N': return actions.flag;
    case '+': return actions.closer;
    case '-': return actions.further;
    case '0': return actions.whole;
    case 'Escape': return actions.letGo;
    case '?': return actions.showKeys;
    default: return null;
  }
}
