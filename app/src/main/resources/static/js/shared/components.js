// Small state of pages, for Alpine.
document.addEventListener('alpine:init', () => {
  const tab = kind => ({
    '@click'() { this.open = kind; },
    ':aria-selected'() { return this.open === kind; },
    ':aria-current'() { return this.open === kind ? 'true' : null; },
  });
  const panel = kind => ({ 'x-show'() { return this.open === kind; } });

  window.Alpine.data('tabs', () => ({
    open: 'student',
    init() { this.open = this.$el.dataset.open; },
    student: tab('student'),
    teacher: tab('teacher'),
    studentPanel: panel('student'),
    teacherPanel: panel('teacher'),
  }));
});
