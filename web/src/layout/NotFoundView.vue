<template>
  <div class="place stack">
    <h1>There is nothing at this address</h1>
    <p>The link may be old, or a letter is missing.</p>
    <p><v-btn to="/today" color="primary">To Today</v-btn></p>
  </div>
</template>
