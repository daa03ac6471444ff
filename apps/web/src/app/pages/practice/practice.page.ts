import { Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import { codeSchema } from '@zelpit/contract';
import { messageOf } from '../../kernel/api/api.service';
import { SheetsService } from '../../documents/sheet/sheets.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';

/** Opens a line by the code printed beside it. */
@Component({
  selector: 'zp-practice',
  imports: [FormsModule, SentenceComponent],
  template: `
    <div class="page">
      <zp-sentence place="Students"><span>Practice</span></zp-sentence>
      <main class="layer page-fill">
        <form class="code-form" (ngSubmit)="open()">
          <label class="heading" for="code">Which line?</label>
          <p class="second">Type the four-character code printed beside it on the sheet.</p>
          <input
            id="code"
            name="code"
            class="form-control code-field"
            maxlength="8"
            autocomplete="off"
            autocapitalize="characters"
            spellcheck="false"
            [attr.aria-describedby]="fault() ? 'code-fault' : null"
            [(ngModel)]="code"
          />
          @if (fault()) {
            <p id="code-fault" class="fault-text" role="alert">{{ fault() }}</p>
          }
          <button type="submit" class="btn btn-solid" [disabled]="isBusy()">Open the line</button>
        </form>
      </main>
    </div>
  `,
})
export class PracticePage {
  private readonly sheets = inject(SheetsService);
  private readonly router = inject(Router);
  protected readonly fault = signal('');
  protected readonly isBusy = signal(false);
  protected code = '';

  protected open(): void {
    const code = codeSchema.safeParse(this.code);
    if (!code.success) {
      this.fault.set('A code has four letters or digits, as printed beside the line. It never has 0, 1, I, L or O.');
      return;
    }
    this.isBusy.set(true);
    this.sheets.lineByCode(code.data).subscribe({
      next: ({ line }) => void this.router.navigate(['/c', line.code]),
      error: (error: unknown) => {
        this.isBusy.set(false);
        this.fault.set(messageOf(error));
      },
    });
  }
}
