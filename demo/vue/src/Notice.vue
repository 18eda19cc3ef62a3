<template>
  <aside>
    <div :style="{ padding: '8px 12px', background: '#eef5f3', borderLeft: '4px solid #2a7a6f' }"><slot /></div>
    <p style="color: #5d6b70; font-size: 14px">Ask at the quay, or call the harbour office.</p>
    <div style="padding: 8px 12px; background: #eef5f3; border-left: 4px solid #2a7a6f">Tickets are good for any other day.</div>
  </aside>
</template>
