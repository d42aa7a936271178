<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Mail\NoticeMail;
use App\Models\Notice;
use App\Models\NoticeChoice;
use App\Models\User;
use Illuminate\Contracts\Mail\Mailer;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** A letter to each of a migration who wants one. */
final class SendNotice implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 300;

    public function __construct(private readonly int $noticeId) {}

    /** @return list<int> seconds until it is tried again */
    public function backoff(): array
    {
        return [30, 300];
    }

    public function handle(Mailer $mailer): void
    {
        $notice = Notice::query()->with('dataset.migration')->findOrFail($this->noticeId);
        $people = User::query()
            ->whereNull('locked_at')
            ->whereIn('id', $notice->dataset->migration->memberships()->select('user_id'))
            ->whereIn('id', NoticeChoice::query()->where(['kind' => $notice->kind, 'by_mail' => true])->select('user_id'))
            ->orderBy('id')
            ->get();
        foreach ($people as $person) {
            $mailer->to($person->email)->send(new NoticeMail($notice, url($notice->link)));
        }
    }
}
