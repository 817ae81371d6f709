<script setup lang="ts"></script>
<template><p>Log</p></template>
