<template>
  <header>
    <h1>Stock</h1>
    <nav class="tabs" aria-label="Stock">
      <RouterLink to="/stock" :aria-current="$route.path === '/stock' ? 'page' : undefined">What to buy</RouterLink>
      <RouterLink to="/stock/purchases" :aria-current="$route.path.startsWith('/stock/purchases') ? 'page' : undefined">Purchases</RouterLink>
      <RouterLink to="/stock/equipment" :aria-current="$route.path === '/stock/equipment' ? 'page' : undefined">Equipment</RouterLink>
      <RouterLink to="/stock/count" :aria-current="$route.path === '/stock/count' ? 'page' : undefined">Count</RouterLink>
    </nav>
  </header>
</template>

<style scoped src="../kit/page.css"></style>
