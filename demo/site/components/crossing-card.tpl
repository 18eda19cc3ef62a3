<div class="kw-tile" style="background-color: #e4eef3; border-color: #d9c9a3">
  <h3><a href="{{ crossing.href }}">{{ crossing.title }}</a></h3>
  <p>{{ crossing.boat }} <span class="kw-badge {% if crossing.full %}kw-full{% else %}kw-free{% endif %}">{{ crossing.places }}</span></p>
</div>
