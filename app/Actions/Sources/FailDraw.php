<?php

declare(strict_types=1);

namespace App\Actions\Sources;

use App\Actions\Notices\GiveNotice;
use App\Models\Draw;
use App\Models\DrawState;
use App\Models\NoticeKind;

/** Why stands in its log; those who are told hear that it did not come, and where to read why. */
final readonly class FailDraw
{
    public function __construct(private GiveNotice $notice) {}

    public function __invoke(Draw $draw, string $why): void
    {
        $draw->goOn(DrawState::Failed, $why);
        $when = $draw->due_at === null ? 'as it was asked for' : "at {$draw->due_at->toIso8601ZuluString()}, its time";
        ($this->notice)(
            NoticeKind::DrawFailed,
            $draw->dataset,
            null,
            "{$draw->dataset->name} was not drawn and tallied {$when}. Why stands in Deliver, under Draw by schedule.",
            'deliver',
        );
    }
}
