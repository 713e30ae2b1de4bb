import { FocusKeeper } from './focus-keeper';
import { TestBed } from '@angular/core/testing';

describe('focus', () => {
  const wait = () => new Promise((resolve) => setTimeout(resolve, 120));

  it('goes to what is next in the same place where what had it is removed, and stays elsewhere', async () => {
    TestBed.inject(FocusKeeper).begin();
    const list = document.createElement('ul');
    list.innerHTML = '<li><button>a</button></li><li><button>b</button></li><li><button>c</button></li>';
    document.body.append(list);
    const [, b] = [...list.querySelectorAll('button')];
    b?.addEventListener('click', () => b.parentElement?.remove());
    b?.focus();
    b?.click();
    await wait();
    expect(document.activeElement?.textContent).toBe('c');
    list.querySelector('button')?.focus();
    document.body.click();
    await wait();
    expect(document.activeElement?.textContent).toBe('a');
    list.remove();
  });
});
