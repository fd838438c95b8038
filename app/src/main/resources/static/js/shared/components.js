// Small state of pages, for Alpine.
document.addEventListener('alpine:init', () => {
  /** @typedef {{ open: string, $el: HTMLElement }} Tabs */
  /** @param {string} kind @returns {ThisType<Tabs> & object} */
  const tab = kind => ({
    '@click'() { this.open = kind; },
    ':aria-selected'() { return this.open === kind; },
    ':aria-current'() { return this.open === kind ? 'true' : null; },
  });
  /** @param {string} kind @returns {ThisType<Tabs> & object} */
  const panel = kind => ({ 'x-show'() { return this.open === kind; } });

  // the browser knows where it is
  window.Alpine.data('zone', () => (/** @type {ThisType<{ $el: HTMLInputElement }> & object} */ ({
    init() { this.$el.value = Intl.DateTimeFormat().resolvedOptions().timeZone || this.$el.value; },
  })));

  window.Alpine.data('tabs', () => (/** @type {ThisType<Tabs> & object} */ ({
    open: 'student',
    init() { this.open = this.$el.dataset.open ?? 'student'; },
    student: tab('student'),
    teacher: tab('teacher'),
    studentPanel: panel('student'),
    teacherPanel: panel('teacher'),
  })));
});
