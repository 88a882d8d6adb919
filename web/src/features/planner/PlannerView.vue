<script setup lang="ts"></script>
<template><div class="place"></div></template>
