{!! $notice->said !!}

{!! $link !!}

You are told of this because you chose so. Choose otherwise under Your account, in Nine Tally.
