<div class="sk-strip">Sailing today: <strong>{{ status }}</strong>. <a href="{{ root }}notices/index.html">Read the notices</a></div>
<div id="kw-top">
  <a class="kw-brand" href="{{ root }}index.html">Skerrin Line<small>Ferries between the islands since anyone can remember</small></a>
  <ul class="kw-nav">
    {% for entry in menu %}
    <li class="{{ entry.state }}"><a href="{{ root }}{{ entry.href }}">{{ entry.title }}</a></li>
    {% endfor %}
  </ul>
</div>
