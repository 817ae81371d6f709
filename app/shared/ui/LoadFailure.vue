<script setup lang="ts">
/** Stands where a part of the program should, when it could not be loaded. */
const reload = () => window.location.reload()
</script>

<template>
  <p role="alert" class="plate m-2 max-w-prose border-l-4 border-l-ceiling px-3 py-2" data-load-failure>
    This part of the program could not be loaded: the server may have stopped, or a newer version is served. Everything
    you entered is kept.
    <button type="button" class="action" @click="reload">Reload the page</button>
  </p>
</template>
