@echo off
rem Crosscheck Lane on Windows: builds what is missing and runs it. See "lane help". It needs a JDK 25; Maven is fetched where it is missing.
setlocal EnableDelayedExpansion
set "HERE=%~dp0"
set "APP=%HERE%build\app"
set "VERB=%~1"
set "MAVEN_VERSION=3.9.11"
set "MAVEN_FROM=https://repo1.maven.org/maven2/org/apache/maven/apache-maven/%MAVEN_VERSION%/apache-maven-%MAVEN_VERSION%-bin.tar.gz"
set "MAVEN_SUM=bcfe4fe305c962ace56ac7b5fc7a08b87d5abd8b7e89027ab251069faebee516b0ded8961445d6d91ec1985dfe30f8153268843c89aa392733d1a3ec956c9978"
if "%VERB%"=="" set "VERB=open"
if "%VERB%"=="help" (
  echo lane demo ^| open [FILE...] ^| evaluate STUDY --out DIR ^| attach DIR ^| verify DIR ^| compare BEFORE AFTER ^| seal DIR ^| report STUDY --out FILE ^| describe FILE... ^| sample FILE ^| fit TABLE ^| converge --h LIST --values LIST ^| settle TABLE ^| integrate FILE ^| transfer SOURCE TARGET ^| convert IN OUT ^| history FILE... ^| picture FILE ^| chart STUDY READING ^| completion ^| manual DIR
  echo lane test ^| fuzz [CASES ^| --long] ^| endure [KILLS] ^| shots ^| bench [NAME] ^| package ^| help
  exit /b 0
)
if not defined JAVA_HOME (
  for /d %%D in ("%ProgramFiles%\Eclipse Adoptium\jdk-25*" "%ProgramFiles%\Java\jdk-25*") do set "JAVA_HOME=%%~D"
)
if not defined JAVA_HOME (
  echo lane: no JDK 25 was found: install one or set JAVA_HOME to it. 1>&2
  exit /b 1
)
"%JAVA_HOME%\bin\java" -version 2>&1 | findstr /c:"\"25" >nul || (
  echo lane: JAVA_HOME is not a JDK 25: %JAVA_HOME% 1>&2
  exit /b 1
)
call :maven || exit /b 1
if "%VERB%"=="test" (
  cd /d "%HERE%" && call "%MVN%" -B -ntp -T 2 -Dlane.apart verify
  exit /b !errorlevel!
)
if "%VERB%"=="fuzz" (
  set "CASES=%~2"
  if "!CASES!"=="" set "CASES=5000"
  if "!CASES!"=="--long" set CASES=100000
  cd /d "%HERE%" && call "%MVN%" -B -ntp -q -pl core,formats verify -Dtest=FuzzTest -Dsurefire.failIfNoSpecifiedTests=false -Dspotless.check.skip=true "-Dlane.fuzz=!CASES!"
  exit /b !errorlevel!
)
if "%VERB%"=="endure" (
  set "KILLS=%~2"
  if "!KILLS!"=="" set "KILLS=200"
  cd /d "%HERE%" && call "%MVN%" -B -ntp -q -pl core,formats,picture,demo,cli,desk verify -Dtest=EndureTest -Dsurefire.failIfNoSpecifiedTests=false -Dspotless.check.skip=true "-Dlane.endure=!KILLS!"
  exit /b !errorlevel!
)
if "%VERB%"=="bench" (
  cd /d "%HERE%" && call "%MVN%" -B -ntp -q -Dmaven.test.skip=true -Dspotless.check.skip=true -Dlane.warnings=-nowarn -Dlane.checks=-nowarn package dependency:copy-dependencies -pl bench -am -DincludeScope=runtime "-DoutputDirectory=%HERE%build\bench" || exit /b 1
  "%JAVA_HOME%\bin\java" --sun-misc-unsafe-memory-access=allow -cp "%HERE%bench\target\classes;%HERE%build\bench\*" org.openjdk.jmh.Main %2
  exit /b !errorlevel!
)
if not exist "%APP%\.built" (
  pushd "%HERE%"
  call "%MVN%" -B -ntp -q -Dmaven.test.skip=true -Dspotless.check.skip=true -Dlane.warnings=-nowarn -Dlane.checks=-nowarn package dependency:copy-dependencies -pl desk -am -DincludeScope=runtime "-DoutputDirectory=%APP%\lib" || exit /b 1
  for %%M in (core formats picture demo cli desk) do copy /y "%%M\target\%%M-*.jar" "%APP%\lib" >nul
  popd
  md "%APP%\fx" 2>nul
  move /y "%APP%\lib\javafx-*-win.jar" "%APP%\fx" >nul
  del /q "%APP%\lib\javafx-*.jar" 2>nul
  echo built> "%APP%\.built"
)
set "RUN="%JAVA_HOME%\bin\java" --enable-native-access=ALL-UNNAMED,javafx.graphics --module-path "%APP%\fx" --add-modules javafx.controls --sun-misc-unsafe-memory-access=allow -Djava.awt.headless=true -cp "%APP%\lib\*""
if "%VERB%"=="demo" %RUN% lane.desk.app.Main demo "%HERE%build\demo\study" & exit /b
if "%VERB%"=="shots" %RUN% -Dglass.platform=Headless -Dprism.order=sw lane.desk.app.Main shots "%HERE%build\demo\study" "%HERE%docs\screenshots" & exit /b
if "%VERB%"=="open" %RUN% lane.desk.app.Main %* & exit /b
if "%VERB%"=="evaluate" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="attach" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="verify" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="compare" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="seal" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="report" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="convert" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="describe" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="sample" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="fit" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="converge" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="transfer" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="settle" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="chart" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="history" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="integrate" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="completion" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="manual" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="picture" %RUN% lane.cli.Lane %* & exit /b
for /f "tokens=3 delims=<>" %%V in ('findstr /c:"<revision>" "%HERE%pom.xml"') do set "STATED=%%V"
if "%VERB%"=="package" (
  "%JAVA_HOME%\bin\jpackage" --type app-image --name crosscheck-lane --app-version %STATED% --dest "%HERE%build\image" --input "%APP%\lib" --main-jar desk-%STATED%.jar --main-class lane.desk.app.Main --arguments open --module-path "%APP%\fx" --add-modules java.base,java.desktop,java.logging,java.naming,java.xml,java.xml.crypto,java.management,jdk.unsupported,jdk.zipfs,javafx.controls --java-options "-Djava.awt.headless=true"
  exit /b !errorlevel!
)
echo lane: there is no verb "%VERB%". 1>&2
exit /b 1

rem Finds Maven, or fetches it from Maven Central by its checksum, as the other launcher does.
:maven
where mvn >nul 2>nul && set "MVN=mvn" && exit /b 0
set "MVN=%HERE%build\maven\apache-maven-%MAVEN_VERSION%\bin\mvn.cmd"
if exist "%MVN%" exit /b 0
echo lane: Maven was not found, so it is fetched from Maven Central ^(once, 9 MB^) 1>&2
md "%HERE%build\maven" 2>nul
set "FETCHED=%HERE%build\maven\fetched.tar.gz"
curl -fsSL -o "%FETCHED%" "%MAVEN_FROM%" || (
  echo lane: Maven could not be fetched from %MAVEN_FROM%; install it and put it on the path. 1>&2
  exit /b 1
)
set "SUM="
for /f "skip=1 delims=" %%S in ('certutil -hashfile "%FETCHED%" SHA512') do if not defined SUM set "SUM=%%S"
set "SUM=!SUM: =!"
if /i not "!SUM!"=="%MAVEN_SUM%" (
  del /q "%FETCHED%"
  echo lane: what was fetched from %MAVEN_FROM% is not what it should be by its checksum; nothing of it was used. 1>&2
  exit /b 1
)
tar -C "%HERE%build\maven" -xzf "%FETCHED%" && del /q "%FETCHED%"
if exist "%MVN%" exit /b 0
echo lane: Maven could not be unpacked in %HERE%build\maven. 1>&2
exit /b 1
