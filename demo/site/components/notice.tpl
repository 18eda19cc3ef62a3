<div class="kw-card notice-{{ notice.kind }}" style="margin-bottom: 20px; border-color: {{ notice.colour }}">
  <h3 style="color: #1f3a56; margin-bottom: 4px">{{ notice.title }}</h3>
  <p class="kw-meta {% if notice.over %}fine-print{% else %}notice-fresh{% endif %}" style="font-size: 12px; color: #6b7780">{{ notice.date }}</p>
  {{ notice.text }}
</div>
