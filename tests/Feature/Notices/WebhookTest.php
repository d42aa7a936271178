<?php

declare(strict_types=1);

namespace Tests\Feature\Notices;

use App\Adapters\Sources\OuterGate;
use App\Jobs\CallWebhook;
use App\Models\Notice;
use App\Models\NoticeKind;
use App\Models\User;
use App\Models\Webhook;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use Tests\Support\FeedServer;
use Tests\TestCase;

/** Programs are told of notices, sealed under a secret that is told once. */
final class WebhookTest extends TestCase
{
    private FeedServer $server;

    private string $folder;

    private User $administrator;

    protected function setUp(): void
    {
        parent::setUp();
        $this->folder = storage_path('work/hook');
        File::ensureDirectoryExists($this->folder);
        File::cleanDirectory($this->folder);
        $this->server = FeedServer::begin($this->folder);
        $this->administrator = $this->person('Greta Holm');
        $this->administrator->update(['is_administrator' => true]);
        $this->actingAs($this->administrator);
    }

    protected function tearDown(): void
    {
        $this->server->end();
        parent::tearDown();
    }

    public function test_a_program_is_told_again_until_it_takes_it_and_can_tell_who_speaks(): void
    {
        config(['nine-tally.inner_hosts' => ["127.0.0.1:{$this->server->port}"]]);
        $secret = $this->keep('/hook')->assertCreated()->json('secret');
        self::assertIsString($secret);
        $shown = (string) $this->api('GET', '/webhooks')
            ->assertJson(['items' => [['kinds' => ['draw-failed'], 'attempts' => []]]])
            ->content();
        self::assertStringNotContainsString($secret, $shown);
        self::assertStringNotContainsString($secret, (string) json_encode(DB::table('webhooks')->first()));

        $notice = Notice::query()->create([
            'kind' => NoticeKind::DrawFailed,
            'dataset_id' => $this->dataset->id,
            'said' => 'Moorings was not drawn.',
            'link' => '/datasets/1/deliver',
        ]);
        $job = new CallWebhook(Webhook::query()->sole()->id, $notice->id);
        try {
            $job->handle(app(OuterGate::class));
            self::fail('What is not taken is tried again.');
        } catch (\RuntimeException $busy) {
            self::assertStringContainsString('answered with 503', $busy->getMessage());
        }
        $job->handle(app(OuterGate::class));
        $told = json_decode((string) file_get_contents("{$this->folder}/told"), true);
        self::assertIsArray($told);
        ['time' => $time, 'seal' => $seal, 'body' => $body] = $told;
        self::assertIsString($time);
        self::assertIsString($body);
        self::assertSame(hash_hmac('sha256', "{$time}\n{$body}", $secret), $seal);
        self::assertSame('Moorings was not drawn.', data_get(json_decode($body, true), 'said'));
        $this->api('GET', '/webhooks')->assertJson(['items' => [['attempts' => [
            ['isTaken' => true, 'said' => 'it answered with 204'], ['isTaken' => false, 'said' => 'it answered with 503'],
        ]]]]);

        $path = "/migrations/{$this->migration->id}/webhooks/".Webhook::query()->sole()->id;
        $this->actingAs($this->analyst)->api('DELETE', $path)->assertForbidden();
        $this->actingAs($this->administrator)->api('DELETE', $path)->assertNoContent();
        self::assertSame(0, DB::table('webhook_attempts')->count());
    }

    public function test_no_program_of_the_inner_network_is_told(): void
    {
        $this->keep('/hook')->assertUnprocessable()->assertSee('inner network');
        self::assertSame(0, Webhook::query()->count());
    }

    /** @return \Illuminate\Testing\TestResponse<\Symfony\Component\HttpFoundation\Response> */
    private function keep(string $path): \Illuminate\Testing\TestResponse
    {
        return $this->api('POST', "/migrations/{$this->migration->id}/webhooks", [
            'url' => "http://127.0.0.1:{$this->server->port}{$path}", 'kinds' => ['draw-failed'],
        ]);
    }
}
