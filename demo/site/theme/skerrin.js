// Opens the details of a notice, and marks the crossing of the hour.
(function () {
  var links = document.querySelectorAll('[data-opens]');
  for (var i = 0; i < links.length; i++) {
    links[i].addEventListener('click', function (event) {
      var box = document.getElementById(this.getAttribute('data-opens'));
      event.preventDefault();
      if (box.style.display === 'none') {
        box.style.display = '';
        box.className += ' open';
      } else {
        box.style.display = 'none';
        box.className = box.className.replace(' open', '');
      }
    });
  }

  var states = { full: 'kw-full', free: 'kw-free', wait: 'is-waiting' };
  var badges = document.querySelectorAll('.kw-badge[data-places]');
  for (var j = 0; j < badges.length; j++) {
    var places = Number(badges[j].getAttribute('data-places'));
    badges[j].classList.add(places > 0 ? states.free : states.full);
  }
})();
