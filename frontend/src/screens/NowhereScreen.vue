<template>
  <main id="main" class="nowhere">
    <h1>Nothing here</h1>
    <p>There is no such page. <RouterLink to="/bench">To the sessions</RouterLink></p>
  </main>
</template>

<style scoped>
.nowhere {
  padding: 40px;
}
</style>
