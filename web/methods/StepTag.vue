<template>
  <span class="tag"><slot /></span>
</template>

<style scoped>
.tag {
  margin-left: 8px;
  font-size: 12px;
  color: var(--ink-soft);
  border: 1px solid var(--line-strong);
  border-radius: 3px;
  padding: 0 5px;
  white-space: nowrap;
}
</style>
