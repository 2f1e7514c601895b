<template>
  <nav class="tabs" aria-label="Setup">
    <RouterLink to="/setup" :aria-current="$route.path === '/setup' ? 'page' : undefined">People and rules</RouterLink>
    <RouterLink to="/setup/rules" :aria-current="$route.path === '/setup/rules' ? 'page' : undefined">Deciding</RouterLink>
    <RouterLink to="/setup/intake" :aria-current="$route.path === '/setup/intake' ? 'page' : undefined">Intake</RouterLink>
    <RouterLink to="/setup/fields" :aria-current="$route.path === '/setup/fields' ? 'page' : undefined">Own fields</RouterLink>
    <RouterLink to="/setup/states" :aria-current="$route.path === '/setup/states' ? 'page' : undefined">Own states</RouterLink>
    <RouterLink to="/setup/tables" :aria-current="$route.path === '/setup/tables' ? 'page' : undefined">Tables</RouterLink>
  </nav>
</template>

<style scoped src="../kit/page.css"></style>
