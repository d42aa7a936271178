<?php

declare(strict_types=1);

namespace Tests\Feature\Access;

use App\Actions\Access\TimeCode;
use App\Models\SecondFactor;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Tests\TestCase;

/** An authenticator beside the password, and codes for when it is lost. */
final class SecondFactorTest extends TestCase
{
    private const PASSWORD = 'kept by the lock house';

    protected function setUp(): void
    {
        parent::setUp();
        Cache::flush();
    }

    /** The vectors of RFC 6238, appendix B, for SHA-1. */
    public function test_codes_are_those_of_the_standard(): void
    {
        $codes = [];
        foreach ([59, 1_111_111_109, 1_111_111_111, 1_234_567_890, 2_000_000_000, 20_000_000_000] as $time) {
            $codes[] = TimeCode::at('12345678901234567890', intdiv($time, TimeCode::SECONDS), 8);
        }

        self::assertSame(['94287082', '07081804', '14050471', '89005924', '69279037', '65353130'], $codes);
        self::assertSame('GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ', TimeCode::written('12345678901234567890'));
    }

    public function test_it_is_asked_for_from_its_first_right_code_and_each_code_is_taken_once(): void
    {
        $this->freezeTime();
        $codes = $this->begun();
        $this->signIn()->assertUnprocessable()->assertJson(['code' => 'second-factor']);
        $this->signIn('000000')->assertUnprocessable()->assertJson(['errors' => [['pointer' => '/code']]]);
        // The code that confirmed it was taken then.
        $this->signIn($this->code())->assertUnprocessable();
        $this->travel(TimeCode::SECONDS)->seconds();
        $this->signIn($this->code())->assertOk();
        $this->signIn($this->code())->assertUnprocessable();

        $this->signIn(strtoupper($codes[3]))->assertOk();
        $this->signIn($codes[3])->assertUnprocessable();
        $this->actingAs($this->analyst);
        $this->api('GET', '/me/second-factor')->assertJson(['isOn' => true, 'recoveryCodes' => 9]);
    }

    public function test_what_is_kept_of_it_is_of_no_use_to_who_reads_it(): void
    {
        $codes = $this->begun();
        $rows = json_encode([DB::table('second_factors')->get(), DB::table('recovery_codes')->get()], JSON_THROW_ON_ERROR);

        self::assertStringNotContainsString(SecondFactor::query()->firstOrFail()->secret, $rows);
        self::assertStringNotContainsString(str_replace('-', '', $codes[0]), $rows);
    }

    public function test_a_short_password_needs_it_and_it_ends_with_a_long_one_alone(): void
    {
        $this->actingAs($this->analyst);
        $to = fn(string $current, string $new): TestResponse => $this->api('PUT', '/me/password', ['current' => $current, 'new' => $new]);
        $to(self::PASSWORD, 'heron weir')->assertUnprocessable();
        $this->begun();
        $to(self::PASSWORD, 'heron weir')->assertNoContent();
        $this->api('POST', '/me/second-factor/end', ['password' => 'wrong'])->assertUnprocessable();
        $this->api('POST', '/me/second-factor/end', ['password' => 'heron weir'])
            ->assertConflict()
            ->assertJson(['code' => 'password-too-short']);
        $to('heron weir', 'eleven herons under the sluice')->assertNoContent();
        $this->api('POST', '/me/second-factor/end', ['password' => 'eleven herons under the sluice'])->assertNoContent();

        $this->flushSession();
        $this->signIn('', 'eleven herons under the sluice')->assertOk();
    }

    /** @return list<string> recovery codes */
    private function begun(): array
    {
        $this->actingAs($this->analyst);
        $this->api('POST', '/me/second-factor', ['password' => 'wrong'])->assertUnprocessable();
        $begun = $this->api('POST', '/me/second-factor', ['password' => self::PASSWORD])->assertCreated();
        $begun->assertSee('otpauth:\/\/totp\/Nine%20Tally%3Aruth.osei%40wherrymoor.example?secret=', false);
        $this->api('PUT', '/me/second-factor', ['code' => '000000'])->assertUnprocessable();
        /** @var list<string> $codes */
        $codes = $this->api('PUT', '/me/second-factor', ['code' => $this->code()])->assertOk()->json('recoveryCodes');
        self::assertCount(10, $codes);
        $this->flushSession();

        return $codes;
    }

    private function code(): string
    {
        $factor = SecondFactor::query()->findOrFail($this->analyst->id);

        return TimeCode::at((string) hex2bin($factor->secret), intdiv(now()->getTimestamp(), TimeCode::SECONDS));
    }

    /** @return TestResponse<\Symfony\Component\HttpFoundation\Response> */
    private function signIn(string $code = '', string $password = self::PASSWORD): TestResponse
    {
        Cache::flush();
        $body = ['email' => 'ruth.osei@wherrymoor.example', 'password' => $password];

        return $this->api('POST', '/session', $code === '' ? $body : [...$body, 'code' => $code]);
    }
}
