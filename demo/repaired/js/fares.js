const prices = { hop: 6.5, crossing: 14, grand: 23.5 };
const form = document.querySelector('.calculator');
const output = document.querySelector('.quote output');

function total() {
  const data = new FormData(form);
  const adults = Number(data.get('adults')) || 0;
  const children = Number(data.get('children')) || 0;
  const bicycles = Number(data.get('bicycles')) || 0;
  return prices[data.get('zone')] * (adults + children / 2) + 3 * bicycles;
}

form.addEventListener('input', () => {
  output.value = `${total().toFixed(2)} crowns`;
});
