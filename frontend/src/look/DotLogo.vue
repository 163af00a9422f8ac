<template>
  <svg class="logo" viewBox="0 0 24 30" aria-hidden="true">
    <circle cx="12" cy="6" r="5" fill="#B8452E" />
    <circle cx="12" cy="15" r="5" fill="#1D6A83" />
    <circle cx="12" cy="24" r="5" fill="#22303C" />
  </svg>
</template>

<style scoped>
.logo {
  display: block;
  width: 24px;
  height: 30px;
}
</style>
