document.querySelector('#more').addEventListener('click', () => { const row = document.createElement('tr'); row.innerHTML = '<td>x</td>'; document.querySelector('.log').append(row); });
