<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Adapters\Sources\OuterGate;
use App\Adapters\Sources\SourceProblem;
use App\Models\Notice;
use App\Models\Webhook;
use GuzzleHttp\Client;
use GuzzleHttp\Exception\GuzzleException;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/**
 * Tells a program of a notice: as JSON, with the time and, under the secret that both know, a seal over both (HMAC, RFC 2104, with
 * SHA-256), so that it can tell who speaks and that it is not said again later. What it does not take is tried again.
 */
final class CallWebhook implements ShouldQueue
{
    use Queueable;

    public const TIME = 'Nine-Tally-Time';

    public const SEAL = 'Nine-Tally-Seal';

    private const SECONDS = 10;

    public int $tries = 5;

    public int $timeout = 60;

    public function __construct(private readonly int $webhookId, private readonly int $noticeId) {}

    /** @return list<int> seconds until it is tried again */
    public function backoff(): array
    {
        return [10, 60, 300, 1_800];
    }

    public function handle(OuterGate $gate): void
    {
        $webhook = Webhook::query()->find($this->webhookId);
        $notice = Notice::query()->with('dataset.migration')->find($this->noticeId);
        if ($webhook === null || $notice === null) {
            return;
        }
        $taken = false;
        try {
            $status = $this->send($webhook, $notice, $gate);
            $taken = $status >= 200 && $status < 300;
            $said = "it answered with {$status}";
        } catch (SourceProblem $problem) {
            $said = lcfirst($problem->getMessage());
        } catch (GuzzleException) {
            $said = 'nobody answered, or not within '.self::SECONDS.' seconds';
        }
        $webhook->attempts()->create(['notice_id' => $notice->id, 'said' => $said, 'is_taken' => $taken]);
        if (! $taken) {
            throw new \RuntimeException("A program was not told of notice {$notice->id}: {$said}.");
        }
    }

    private function send(Webhook $webhook, Notice $notice, OuterGate $gate): int
    {
        $to = $gate->to($webhook->url);
        $dataset = $notice->dataset;
        $body = json_encode([
            'notice' => $notice->id,
            'kind' => $notice->kind->value,
            'migration' => ['id' => $dataset->migration_id, 'name' => $dataset->migration->name],
            'dataset' => ['id' => $dataset->id, 'name' => $dataset->name],
            'said' => $notice->said,
            'link' => url($notice->link),
            'at' => $notice->created_at->toIso8601ZuluString(),
        ], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES);
        $time = now()->toIso8601ZuluString();

        return (new Client)->request('POST', $webhook->url, [
            'allow_redirects' => false,
            'http_errors' => false,
            'timeout' => self::SECONDS,
            'body' => $body,
            'headers' => [
                'Content-Type' => 'application/json',
                'User-Agent' => 'Nine Tally',
                self::TIME => $time,
                self::SEAL => hash_hmac('sha256', "{$time}\n{$body}", $webhook->secret),
            ],
            'curl' => $to['curl'],
        ])->getStatusCode();
    }
}
