<?php

declare(strict_types=1);

namespace App\Actions\Notices;

use App\Jobs\CallWebhook;
use App\Jobs\SendNotice;
use App\Models\Dataset;
use App\Models\Notice;
use App\Models\NoticeChoice;
use App\Models\NoticeKind;
use App\Models\Tally;
use App\Models\Webhook;

/** Tells the people of a migration of something: in the application, and by mail whoever wants that; and programs. */
final readonly class GiveNotice
{
    /**
     * @param  string  $said  in words, without any value of a cell
     * @param  string  $station  that shows more
     */
    public function __invoke(NoticeKind $kind, Dataset $dataset, ?Tally $tally, string $said, string $station): void
    {
        $notice = ['kind' => $kind, 'dataset_id' => $dataset->id, 'tally_id' => $tally?->id];
        // Who is asked to tell again has told already.
        if ($tally !== null && $kind !== NoticeKind::SignOffReturned && Notice::query()->where($notice)->exists()) {
            return;
        }
        $given = Notice::query()->create([...$notice, 'said' => $said, 'link' => "/datasets/{$dataset->id}/{$station}"]);
        $isWanted = NoticeChoice::query()
            ->where(['kind' => $kind, 'by_mail' => true])
            ->whereIn('user_id', $dataset->migration->memberships()->select('user_id'))
            ->exists();
        if ($isWanted) {
            SendNotice::dispatch($given->id)->afterCommit();
        }
        foreach (Webhook::query()->where('migration_id', $dataset->migration_id)->get() as $webhook) {
            if (in_array($kind->value, $webhook->kinds, true)) {
                CallWebhook::dispatch($webhook->id, $given->id)->afterCommit();
            }
        }
    }
}
