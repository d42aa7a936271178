{!! $invitation->name !!},

{!! $invitation->by->name !!} invites you to Nine Tally{!! $invitation->migration === null ? '' : ', as '.$invitation->role?->label().' of '.$invitation->migration->name !!}.

Choose your password here. The link can be used once, until {!! $invitation->expires_at->format('j F Y, H:i') !!} UTC:

{!! $link !!}

If you do not expect this, leave it: nothing happens.
