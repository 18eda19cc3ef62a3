<div id="kw-foot">
  <p style="margin: 0;">Skerrin Line, The Ferry Office, Tarbek. Telephone 0000 555 014.</p>
  <p style="margin: 0; font-size: 12px;"><a href="{{ root }}contact.html">Contact</a> <a href="{{ root }}about.html">About us</a></p>
</div>
