import { Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { SessionService } from '../../kernel/session/session.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';

@Component({
  selector: 'zp-places',
  imports: [RouterLink, SentenceComponent, ForWhomComponent],
  template: `
    <div class="page">
      <zp-sentence><span>All places</span><zp-for-whom /></zp-sentence>
      <main class="layer page-fill places">
        @for (place of places(); track place.to) {
          <a class="place" [routerLink]="place.to"
            ><b>{{ place.name }}</b> <span class="second">{{ place.text }}</span></a
          >
        }
      </main>
    </div>
  `,
})
export class PlacesPage {
  private readonly session = inject(SessionService);
  protected readonly places = computed(() => [...forAll, ...(this.session.isOwner() ? forOwners : [])]);
}

const forAll = [
  { to: '/tunes', name: 'Tunes', text: 'Take a tune apart, hear it, find what gives trouble.' },
  { to: '/charts', name: 'Charts', text: 'Every fingering of every instrument, and what any fingers sound.' },
  { to: '/changes', name: 'Changes', text: 'Every change of an instrument, how much trouble it is, and one taken apart in time.' },
  { to: '/movements', name: 'Movements', text: 'Doublings, throws, grips and all others: from every note, into every note, and their lines.' },
  { to: '/changes/lines', name: 'Lines', text: 'Exercise lines of any kind, in order, onto a sheet or into a file.' },
  { to: '/changes/ear', name: 'Ear', text: 'Blind test of one change: which of the two was crossed?' },
  { to: '/changes/keys', name: 'Fingers', text: 'Keys or a tablet as holes: every change judged, and your own timing.' },
  { to: '/changes/hunt', name: 'Find the faults', text: 'Somebody who is not there plays; what was not clean?' },
  { to: '/instruments', name: 'Who plays what', text: 'Each student’s instrument: model, tuning, hands, and the notes that are known.' },
  { to: '/workshop', name: 'Instrument workshop', text: 'Instruments of your own: copied and changed, measured, or from a file.' },
  { to: '/sheets', name: 'Sheets', text: 'What each student practises, on screen and on paper.' },
  { to: '/students', name: 'Students', text: 'Who learns here.' },
  { to: '/practice', name: 'Practice', text: 'Open a line by the code printed beside it.' },
  { to: '/put-away', name: 'Put away', text: 'What can be brought back, and what goes for good.' },
  { to: '/studio', name: 'Studio', text: 'Light or dark, the password, and signing out.' },
  { to: '/teachers', name: 'Teachers', text: 'Who teaches here.' },
];

const forOwners = [
  { to: '/deeds', name: 'Who changed what', text: 'By person and by thing.' },
  { to: '/archive', name: 'Archive', text: 'The whole studio as one file, out and in.' },
];
