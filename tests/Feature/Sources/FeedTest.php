<?php

declare(strict_types=1);

namespace Tests\Feature\Sources;

use App\Adapters\Sources\OuterGate;
use App\Adapters\Sources\SourceProblem;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Models\SourceConnection;
use Illuminate\Support\Facades\File;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\FeedServer;
use Tests\TestCase;

/** Records that a web server gives in pages; and servers that are busy, broken, or lead where nobody may go. */
final class FeedTest extends TestCase
{
    private static ?FeedServer $server = null;

    private static int $port = 0;

    protected function setUp(): void
    {
        parent::setUp();
        $folder = storage_path('work/feed');
        File::ensureDirectoryExists($folder);
        File::cleanDirectory($folder);
        self::$server ??= FeedServer::begin($folder);
        self::$port = self::$server->port;
        config(['nine-tally.inner_hosts' => ['127.0.0.1:'.self::$port, 'localhost:'.self::$port]]);
        $this->actingAs($this->analyst);
    }

    public static function tearDownAfterClass(): void
    {
        self::$server?->end();
        self::$server = null;
        parent::tearDownAfterClass();
    }

    /** @param array<string, string|int> $settings */
    #[DataProvider('feeds')]
    public function test_all_pages_become_parts_of_one_delivery_with_every_digit(string $path, array $settings, int $pages): void
    {
        $receipt = $this->drawn($path, $settings);
        self::assertSame($pages === 1 ? ReceiptState::Received : ReceiptState::Unpacked, $receipt->state, (string) $receipt->problem);
        $parts = $receipt->state === ReceiptState::Unpacked ? $receipt->unpacked_into ?? [] : [$receipt->id];
        self::assertCount($pages, $parts);
        $this->takeParts('source', ...$parts)->assertAccepted();
        $delivery = $this->dataset->latestDelivery(\NineTally\Core\Row\Side::Source);
        self::assertSame([24, 0], [$delivery?->delivered_count, $delivery?->refused_count]);
        $rows = $this->api('GET', "/datasets/{$this->dataset->id}/profile")->content();
        self::assertStringContainsString('"216172782113783835.00"', (string) $rows);
        // Asked for again as one.
        $this->api('GET', "/datasets/{$this->dataset->id}/schedule")->assertJson([
            'draws' => [['side' => 'source', 'sources' => ['Feed']]],
        ]);
    }

    /** @return iterable<string, array{string, array<string, string|int>, int}> */
    public static function feeds(): iterable
    {
        yield 'numbers of pages, until one is empty' => ['/pages', ['paging' => 'page', 'parameter' => 'page'], 3];
        yield 'a header with the next address' => ['/link', ['paging' => 'link'], 3];
        yield 'a field with the next address' => ['/next', ['paging' => 'next', 'field' => 'paging.next', 'records' => 'data.items'], 3];
        yield 'an offset' => ['/offset', ['paging' => 'offset', 'parameter' => 'from', 'size' => 10], 3];
    }

    public function test_packed_text_is_unpacked_and_who_is_busy_is_asked_again_when_they_say(): void
    {
        $text = $this->drawn('/lines', []);
        self::assertSame(ReceiptState::Received, $text->state, (string) $text->problem);
        self::assertSame("berth,fee\n1,0.10\n2,0.20\n", file_get_contents(storage_path("chunks/{$text->id}")));
        $began = microtime(true);
        self::assertSame(ReceiptState::Received, $this->drawn('/busy', [])->state);
        self::assertGreaterThan(0.9, microtime(true) - $began);
    }

    public function test_pages_that_are_known_and_kept_are_not_sent_again(): void
    {
        $paging = ['paging' => 'page', 'parameter' => 'page'];
        $known = static fn(): int => (int) @filesize(storage_path('work/feed/known'));
        $first = $this->drawn('/marked', $paging);
        $this->takeParts('source', ...$first->unpacked_into ?? [])->assertAccepted();
        self::assertSame(0, $known());

        $again = $this->drawn('/marked', $paging);
        $digests = static fn(Receipt $receipt): array => Receipt::query()
            ->whereKey($receipt->unpacked_into ?? [])
            ->orderBy('file_name')
            ->pluck('digest')
            ->all();
        self::assertCount(3, $digests($again));
        self::assertSame([$digests($first), 3], [$digests($again), $known()]);
    }

    /** @param array<string, string|int> $settings */
    #[DataProvider('bad')]
    public function test_what_is_wrong_is_said_and_nothing_is_left(string $path, array $settings, string $problem): void
    {
        $receipt = $this->drawn($path, $settings);
        self::assertSame(ReceiptState::Refused, $receipt->state);
        self::assertStringContainsString($problem, (string) $receipt->problem);
        self::assertSame([], glob(storage_path("chunks/{$receipt->id}*")));
    }

    /** @return iterable<string, array{string, array<string, string|int>, string}> */
    public static function bad(): iterable
    {
        yield 'a wrong token' => ['/pages', ['secret' => 'open'], 'it does not know this token'];
        yield 'nothing there' => ['/none', [], 'there is nothing at /none'];
        yield 'the same page for ever' => ['/same', ['paging' => 'page', 'parameter' => 'page'], 'page 2 is page 1 again'];
        yield 'a circle' => [
            '/endless',
            ['paging' => 'next', 'field' => 'paging.next', 'records' => 'data.items'],
            'page 5 is page 1 again',
        ];
        yield 'no list where one is said to be' => [
            '/next',
            ['paging' => 'next', 'records' => 'data.rows'],
            'no list of records at "data.rows"',
        ];
        yield 'a page for people' => ['/html', ['paging' => 'page'], 'it does not answer with JSON. It began with: <html>Sign in'];
        yield 'more than there is room for, packed' => ['/big', [], 'it is more than 1,000,000 bytes'];
        yield 'cut in the middle' => ['/cut', ['seconds' => 5], 'in the middle of a page'];
        yield 'one that takes for ever' => ['/slow', ['seconds' => 1], 'took more than 1 seconds'];
        yield 'a way into the inner network' => ['/inner', [], '10.11.12.13, port 80, is a computer of the inner network'];
    }

    public function test_the_token_is_shown_to_nobody_else(): void
    {
        $receipt = $this->drawn('/away', []);
        self::assertSame(ReceiptState::Received, $receipt->state, (string) $receipt->problem);
        self::assertSame('[{"key": "none"}]', file_get_contents(storage_path("chunks/{$receipt->id}")));
    }

    public function test_only_the_web_outside_is_asked_and_what_is_named(): void
    {
        $gate = new OuterGate(['127.0.0.1:8099']);
        self::assertSame('127.0.0.1', $gate->to('http://127.0.0.1:8099/x')['address']);
        self::assertSame('192.0.32.8', $gate->to('https://192.0.32.8/')['address']);
        foreach (
            [
                'http://127.0.0.1/', 'http://localhost:8090/', 'http://[::1]/', 'http://169.254.169.254/latest', 'http://10.0.0.1:8099/',
                'http://192.168.1.1/', 'http://[::ffff:127.0.0.1]/', 'http://0.0.0.0/', 'file:///etc/passwd', 'https://a:b@example.org/',
                'http://',
            ]
            as $url
        ) {
            try {
                $gate->to($url);
                self::fail("{$url} was let through.");
            } catch (SourceProblem $problem) {
                self::assertMatchesRegularExpression('/inner network|no address of the web|no computer/', $problem->getMessage(), $url);
            }
        }
    }

    /** @param array<string, string|int> $settings */
    private function drawn(string $path, array $settings): Receipt
    {
        config(['nine-tally.snapshot_bytes' => 1_000_000]);
        SourceConnection::query()->updateOrCreate(['migration_id' => $this->migration->id, 'label' => 'Feed'], [
            'kind' => 'feed',
            'user_id' => $this->analyst->id,
            'settings' => [
                'url' => 'http://127.0.0.1:'.self::$port.$path,
                'header' => 'X-Key',
                'prefix' => '',
                ...array_diff_key($settings, ['secret' => 1]),
            ],
            'secret' => $settings['secret'] ?? 'sesame',
        ]);
        $id = $this->api('POST', "/datasets/{$this->dataset->id}/snapshots", ['side' => 'source', 'source' => 'Feed'])
            ->assertAccepted()
            ->json('id');
        self::assertIsString($id);

        return Receipt::query()->findOrFail($id);
    }
}
