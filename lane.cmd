@echo off
rem Crosscheck Lane on Windows: builds what is missing and runs it. See "lane help". It needs a JDK 25 and Maven.
setlocal EnableDelayedExpansion
set "HERE=%~dp0"
set "APP=%HERE%build\app"
set "VERB=%~1"
if "%VERB%"=="" set "VERB=help"
if "%VERB%"=="help" (
  echo lane demo ^| open [FILE...] ^| evaluate STUDY --out DIR ^| describe FILE... ^| sample FILE ^| picture FILE
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
where mvn >nul 2>nul || (
  echo lane: Maven was not found: install it and put it on the path. 1>&2
  exit /b 1
)
if "%VERB%"=="test" (
  cd /d "%HERE%" && mvn -B -ntp -T 2 verify
  exit /b !errorlevel!
)
if "%VERB%"=="fuzz" (
  set "CASES=%~2"
  if "!CASES!"=="" set "CASES=5000"
  if "!CASES!"=="--long" set CASES=100000
  cd /d "%HERE%" && mvn -B -ntp -q -pl core,formats verify -Dtest=FuzzTest -Dsurefire.failIfNoSpecifiedTests=false -Dspotless.check.skip=true "-Dlane.fuzz=!CASES!"
  exit /b !errorlevel!
)
if "%VERB%"=="endure" (
  set "KILLS=%~2"
  if "!KILLS!"=="" set "KILLS=200"
  cd /d "%HERE%" && mvn -B -ntp -q -pl core,formats,picture,demo,cli,desk verify -Dtest=EndureTest -Dsurefire.failIfNoSpecifiedTests=false -Dspotless.check.skip=true "-Dlane.endure=!KILLS!"
  exit /b !errorlevel!
)
if "%VERB%"=="bench" (
  cd /d "%HERE%" && mvn -B -ntp -q -Dmaven.test.skip=true -Dspotless.check.skip=true -Dlane.warnings=-nowarn -Dlane.checks=-nowarn package dependency:copy-dependencies -pl bench -am -DincludeScope=runtime "-DoutputDirectory=%HERE%build\bench" || exit /b 1
  "%JAVA_HOME%\bin\java" --sun-misc-unsafe-memory-access=allow -cp "%HERE%bench\target\classes;%HERE%build\bench\*" org.openjdk.jmh.Main %2
  exit /b !errorlevel!
)
if not exist "%APP%\.built" (
  pushd "%HERE%"
  call mvn -B -ntp -q -Dmaven.test.skip=true -Dspotless.check.skip=true -Dlane.warnings=-nowarn -Dlane.checks=-nowarn package dependency:copy-dependencies -pl desk -am -DincludeScope=runtime "-DoutputDirectory=%APP%\lib" || exit /b 1
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
if "%VERB%"=="describe" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="sample" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="picture" %RUN% lane.cli.Lane %* & exit /b
if "%VERB%"=="package" (
  "%JAVA_HOME%\bin\jpackage" --type app-image --name crosscheck-lane --app-version 0.1.0 --dest "%HERE%build\image" --input "%APP%\lib" --main-jar desk-0.1.0.jar --main-class lane.desk.app.Main --arguments open --module-path "%APP%\fx" --add-modules java.base,java.desktop,java.logging,java.xml,java.management,jdk.unsupported,javafx.controls --java-options "-Djava.awt.headless=true"
  exit /b !errorlevel!
)
echo lane: there is no verb "%VERB%". 1>&2
exit /b 1
