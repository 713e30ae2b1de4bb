import { TestBed } from '@angular/core/testing';
import { until } from '../../testing/harness';
import { FocusKeeper } from './focus-keeper';

describe('focus', () => {
  it('goes on where what was pressed can’t be pressed any more only after a while', async () => {
    TestBed.inject(FocusKeeper).begin();
    const list = document.createElement('div');
    list.innerHTML = '<button>slow</button><button>next</button>';
    document.body.append(list);
    const [slow] = [...list.querySelectorAll('button')];
    slow?.addEventListener('click', () => setTimeout(() => (slow.disabled = true), 400));
    slow?.focus();
    slow?.click();
    await until(() => document.activeElement?.textContent === 'next');
    expect(slow?.disabled).toBeTrue();
    list.remove();
  });

  it('goes to what is next in the same place where what had it is removed, and stays elsewhere', async () => {
    TestBed.inject(FocusKeeper).begin();
    const list = document.createElement('ul');
    list.innerHTML = '<li><button>a</button></li><li><button>b</button></li><li><button>c</button></li>';
    document.body.append(list);
    const [, b] = [...list.querySelectorAll('button')];
    b?.addEventListener('click', () => b.parentElement?.remove());
    b?.focus();
    b?.click();
    await until(() => document.activeElement?.textContent === 'c');
    list.querySelector('button')?.focus();
    document.body.click();
    // What would move it had time to.
    await new Promise((resolve) => setTimeout(resolve, 120));
    expect(document.activeElement?.textContent).toBe('a');
    list.remove();
  });
});
